/** Art of other orders that is cut on a film with the order's own. */
import type { Artwork } from '../readers/artwork';
import { sourceKey } from '../artwork/choices';
import type { PreparedArtwork } from '../artwork/prepare';
import type { Film } from '../films/film';
import type { FilmLayer, Separation } from '../films/separate';
import type { Finding } from '../findings/finding';
import type { Cutter } from '../layout/cutter';
import { packOf } from '../layout/strip';
import type { TypedLetter, typedLetters } from '../panels/gather';
import type { panel } from '../panels/panel';
import type { Part } from '../panels/part';
import type { piecesOf } from '../panels/pieces';
import type { MakeStage } from '../stages/remember';
import { own } from '../units/own';
import type { Choices } from './choices';
import { changedRecipe } from './recipes';
import type { Guest, OrderName } from './sharing';
import { NO_SHARING } from './sharing';
import type { Shop } from './shop';

/** What other orders have on a film. */
export interface GuestArt {
  readonly parts: readonly Part[];
  readonly findings: readonly Finding[];
}
export const NO_GUESTS: GuestArt = { parts: [], findings: [] };

/** Gives what the guests of an order have on one of its films. */
export type InviteGuests = (film: Film, cutter: Cutter) => GuestArt;

/** What of an order its films are made from. */
type Drawing = Pick<Choices, 'artwork' | 'films'>;

/** An order up to its films. */
export type UpToFilms = (
  artworks: ReadonlyMap<string, Artwork>,
  drawing: Drawing,
  films: readonly Film[],
) => { readonly drawn: PreparedArtwork; readonly separation: Separation };

/** The stages that an order's own art goes through, and a guest's too. */
interface Stages {
  readonly upToFilms: UpToFilms;
  readonly parts: typeof panel;
  readonly pieces: typeof piecesOf;
  readonly letters: typeof typedLetters;
}

interface GuestDrawn {
  readonly layer: FilmLayer | undefined;
  readonly typed: readonly TypedLetter[];
  readonly isStopped: boolean;
}

/** Guests on all films that are drawn once. */
const KEPT_GUESTS = 60;

export function invitingGuests(stage: MakeStage, { upToFilms, parts, pieces, letters }: Stages) {
  const layerOf = stage('guest', guestDrawn, KEPT_GUESTS);
  const partsOf = stage('guestParts', guestParts, KEPT_GUESTS);

  function guestDrawn(
    artworks: ReadonlyMap<string, Artwork>,
    drawing: Drawing,
    films: readonly Film[],
    film: string,
  ): GuestDrawn {
    const { drawn, separation } = upToFilms(artworks, drawing, films);
    return {
      layer: separation.films.find((one) => one.film.id === film),
      typed: letters(drawn.shapes),
      isStopped: [...drawn.findings, ...separation.findings].some(({ severity }) => severity === 'stop'),
    };
  }

  /** @param films the shop's, whatever is on the shelf */
  return (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    films: readonly Film[],
  ): InviteGuests => {
    const { guests, refused } = shop.sharing ?? NO_SHARING;
    const art = (guest: Guest, film: Film, cutter: Cutter): GuestArt => {
      const { artwork, films: onFilms, layout } = guest.choices;
      const { layer, typed, isStopped } = layerOf(
        artworksOf(artworks, artwork),
        { artwork, films: onFilms },
        films,
        film.id,
      );
      if (!layer)
        return { parts: [], findings: [isStopped ? guestStopped(film, guest) : nothingOn(film, guest)] };
      const pack = packOf(choices.layout, film);
      const made = pack === 'one' ? parts(layer, undefined).parts : pieces(layer, pack, typed);
      const findings = [
        ...(isStopped ? [guestStopped(film, guest)] : []),
        ...(guest.cut.includes(film.id) ? [guestWasCut(film, guest)] : []),
        ...(layout.mirror === choices.layout.mirror ? [] : [otherMirror(film, guest)]),
        ...(changedRecipe(guest.choices.cut, shop, cutter, film) ? [otherRecipe(film, guest)] : []),
      ];
      return { parts: partsOf(made, guest.number, layout.copies), findings };
    };
    return (film, cutter) => {
      const ids = own(choices.layout.guests, film.id) ?? [];
      const its = guests
        .filter(({ id, films: on }) => ids.includes(id) && on.includes(film.id))
        .map((guest) => art(guest, film, cutter));
      const missing = refused.filter((one) => one.film === film.id && ids.includes(one.order.id));
      if (its.length + missing.length === 0) return NO_GUESTS;
      return {
        parts: its.flatMap((one) => one.parts),
        findings: [
          ...its.flatMap((one) => one.findings),
          ...missing.map(({ order }) => guestElsewhere(film, order)),
        ],
      };
    };
  };
}

/** Parts of an order and of its guests, the order's own first. */
export type JoinParts = (parts: readonly Part[], guests: readonly Part[]) => readonly Part[];

export function joiningParts(stage: MakeStage): JoinParts {
  const joined = stage(
    'joined',
    (parts: readonly Part[], guests: readonly Part[]) => [...parts, ...guests],
    KEPT_GUESTS,
  );
  return (parts, guests) => (guests.length === 0 ? parts : joined(parts, guests));
}

function artworksOf(
  artworks: ReadonlyMap<string, Artwork>,
  { pieces }: Choices['artwork'],
): ReadonlyMap<string, Artwork> {
  const keys = new Set(pieces.map(({ source }) => sourceKey(source)));
  return new Map([...artworks].filter(([key]) => keys.has(key)));
}

/** Parts of another order: known by its number, and as many as it has copies. */
const guestParts = (parts: readonly Part[], order: number, copies: number): Part[] =>
  parts.map((part) => ({
    ...part,
    id: `${order}:${part.id}`,
    label: `${part.label} of #${order}`,
    copies: part.copies ?? copies,
    order,
  }));

const TAKE_OUT = 'Take it off this film under Layout';

const nothingOn = ({ name }: Film, { number }: Guest): Finding => ({
  code: 'guest-nothing',
  film: name,
  severity: 'check',
  message: `#${number} has nothing on ${name} any more.`,
  waysOut: [TAKE_OUT],
});

const guestElsewhere = ({ name }: Film, { number, name: order }: OrderName): Finding => ({
  code: 'guest-elsewhere',
  film: name,
  severity: 'check',
  message: `#${number} ${order} is not cut on ${name} with this order: it is cut with another one, or put away.`,
  waysOut: [TAKE_OUT],
});

const guestStopped = ({ name }: Film, { number, name: order }: Guest): Finding => ({
  code: 'guest-stopped',
  film: name,
  severity: 'stop',
  message: `#${number} ${order}, which is cut on ${name} with this order, has something that keeps it from the cutter.`,
  waysOut: [`Open #${number} and mend it`, TAKE_OUT],
});

const guestWasCut = ({ name }: Film, { number }: Guest): Finding => ({
  code: 'guest-was-cut',
  film: name,
  severity: 'check',
  message: `${name} of #${number} has been cut already; with this order it is cut once more.`,
  waysOut: [TAKE_OUT],
});

const otherMirror = ({ name }: Film, { number }: Guest): Finding => ({
  code: 'guest-mirror',
  film: name,
  severity: 'stop',
  message: `#${number} has ${name} mirrored otherwise than this order.`,
  waysOut: ['Set Mirror the same in both under Layout', TAKE_OUT],
});

const otherRecipe = ({ name }: Film, { number }: Guest): Finding => ({
  code: 'guest-recipe',
  film: name,
  severity: 'check',
  message: `#${number} has cut settings of its own for ${name}; on this film those of this order count.`,
  waysOut: ['Take them over under Cut settings', TAKE_OUT],
});
