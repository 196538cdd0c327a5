/** Films on their way to a cutter: how each is taken apart, laid on its strips, and cut. */
import { own } from '../units/own';
import type { Film } from '../films/film';
import type { FilmLayer, Separation } from '../films/separate';
import type { Again } from '../films/again';
import type { Finding } from '../findings/finding';
import type { Bed, Cutter, Machine } from '../layout/cutter';
import { layOut } from '../layout/layOut';
import { marksLeftOut } from '../layout/layoutFindings';
import { panelRoomOf } from '../layout/panelRoom';
import type { MakeOutline } from '../layout/onFilm';
import type { LayoutChoices, LyingChoices, Strip } from '../layout/strip';
import { packOf } from '../layout/strip';
import type { TypedLetter } from '../panels/gather';
import type { Apart, PanelPart } from '../panels/panel';
import type { panel } from '../panels/panel';
import type { piecesOf } from '../panels/pieces';
import type { PanelRoom } from '../panels/room';
import type { Panelling } from '../panels/seams';
import type { WeededStrip } from '../weeding/weeding';
import { weed } from '../weeding/weeding';
import type { MakeStage } from '../stages/remember';
import { followedOn } from '../toolpath/followed';
import type { KindRecipes } from '../toolpath/kinds';
import { isTooShort } from '../toolpath/perforation';
import { programFor } from '../toolpath/program';
import { formatLength } from '../units/length';
import { from } from './assemble';
import type { Choices } from './choices';
import type { FilmCut } from './planned';
import { noRecipe, recipesFor } from './recipes';
import type { GuestArt, InviteGuests, JoinParts } from './guests';
import type { OrderName } from './sharing';
import { NO_SHARING } from './sharing';
import type { Shop } from './shop';

/** Strips and films are many in one order. */
export const KEPT_MANY = 200;

/** A film on its way to a cutter; without a room there it has no roll. */
export interface FilmToCut {
  readonly layer: FilmLayer;
  readonly film: Film;
  readonly cutter: Cutter;
  readonly room: PanelRoom | undefined;
  /** What other orders have on it. */
  readonly guests: GuestArt;
}
/** A film that may be taken apart. */
export interface RoomedFilm extends FilmToCut {
  readonly room: PanelRoom;
  /** Whether it goes in one; missing: as its box tells. */
  readonly fits?: boolean;
}
export const layersAndRooms = (films: readonly RoomedFilm[]) =>
  [films.map(({ layer }) => layer), films.map(({ room }) => room)] as const;

export function filmsToCut(
  separation: Separation,
  stocked: Separation,
  usual: Cutter,
  choices: Choices,
  shop: Shop,
  invite: InviteGuests,
): FilmToCut[] {
  const { away } = shop.sharing ?? NO_SHARING;
  return separation.films.flatMap((layer, i) => {
    const { film } = stocked.films[i];
    if (own(away, film.id)) return [];
    const cutter = cutterNamed(shop, own(choices.cutter.film, film.id)) ?? usual;
    const room = panelRoomOf(film, choices.layout, bedOf(cutter), choices.panels.reserve);
    return [{ layer, film, cutter, room, guests: invite(film, cutter) }];
  });
}

export const hasRoom = (film: FilmToCut): film is RoomedFilm => film.room !== undefined;

/** Films that are not cut with this order, and with which they are. */
export const filmsAway = (separation: Separation, { sharing = NO_SHARING }: Shop): Finding[] =>
  separation.films.flatMap(({ film }) => {
    const host = own(sharing.away, film.id);
    return host ? [cutWith(film, host)] : [];
  });

const cutWith = ({ id, name }: Film, host: OrderName): Finding => ({
  stage: 'layout',
  code: 'cut-with',
  film: name,
  severity: 'note',
  message: `${name} is cut with #${host.number} ${host.name}.`,
  waysOut: ['Cut it by itself under Layout'],
  key: `cut-with ${id}`,
});

/** Films that are taken apart into panels. */
export interface TakenApart {
  readonly apart: readonly RoomedFilm[];
  /** Undefined: none is. */
  readonly seams: Panelling | undefined;
}
export const NOT_APART: TakenApart = { apart: [], seams: undefined };

/** How a film is taken apart; undefined: it is not. */
export function apartOf(
  { layer }: FilmToCut,
  { apart, seams }: TakenApart,
  { panels }: Choices,
  { order, only }: { readonly order?: number; readonly only?: readonly number[] } = {},
): Apart | undefined {
  const taken = apart.find((one) => one.layer === layer);
  if (!seams || !taken) return undefined;
  const { overlap, overlaps, onTop, skip, numbers } = panels;
  return {
    panelling: seams,
    choices: { overlap, overlaps, onTop, skip, numbers },
    room: taken.room,
    ...(numbers !== 'none' && order !== undefined && { order }),
    only,
  };
}

/** What of a film lies on its strips. */
interface FilmLaid {
  readonly panels: readonly PanelPart[];
  readonly strips: readonly WeededStrip[];
  readonly findings: readonly Finding[];
}

export function layingFilms(
  stage: MakeStage,
  parts: typeof panel,
  pieces: typeof piecesOf,
  joined: JoinParts,
  outlines: MakeOutline,
) {
  const laidOut = stage('layOut', layOut, KEPT_MANY);
  const weeded = stage('weed', weed, KEPT_MANY);
  return (
    { layer, film, cutter, guests }: FilmToCut,
    choices: Choices,
    apart: Apart | undefined,
    again: Again | undefined,
    typed: () => readonly TypedLetter[],
  ): FilmLaid => {
    const own = layoutOf(choices.layout, film.id);
    const pack = packOf(own, film);
    const made =
      pack === 'one' || apart || again
        ? parts(layer, apart, again)
        : { parts: pieces(layer, pack, typed()), panels: [], findings: [] };
    const withoutMarks = pack !== 'one' && layer.marks.length > 0 ? [marksLeftOut(film)] : [];
    const { strips, findings } = laidOut(
      film,
      joined(made.parts, guests.parts),
      own,
      bedOf(cutter),
      outlines,
    );
    const all = strips.map((strip) => {
      const { findings: found, ...weeding } = weeded(strip, weedingOf(choices.layout, strip));
      return { strip: { ...strip, weeding }, findings: found };
    });
    const found = [...withoutMarks, ...guests.findings, ...findings, ...all.flatMap((one) => one.findings)];
    return {
      panels: made.panels,
      strips: all.map(({ strip }) => strip),
      findings: [...from('panels', made.findings), ...from('layout', found)],
    };
  };
}

export function cuttingFilms(stage: MakeStage) {
  const programs = stage('toolpath', programFor, KEPT_MANY);
  return (
    { film, cutter }: FilmToCut,
    { panels, strips, findings }: FilmLaid,
    choices: Choices,
    shop: Shop,
  ): FilmCut => {
    const has = recipesFor(shop, cutter, film, choices.cut);
    if (!has)
      return {
        panels,
        cuts: [],
        findings: strips.length > 0 ? [...findings, noRecipe(film, cutter)] : findings,
      };
    const { kinds, ...recipes } = has;
    const cuts = strips.map((strip) => ({
      strip,
      cutter,
      ...recipes,
      program: programs(strip, kinds, machineOf(cutter)),
    }));
    return { panels, cuts, findings: [...findings, ...from('cut', withoutGap(film, cutter, strips, kinds))] };
  };
}

/** Perforated lines that are too short to hold by a gap. */
function withoutGap(
  film: Film,
  { device }: Cutter,
  strips: readonly WeededStrip[],
  { perforated: { dashes } }: KindRecipes,
): Finding[] {
  if (!dashes) return [];
  const short = strips
    .flatMap(({ placements }) => placements)
    .flatMap(({ part }) => followedOn(part, device.tools ?? 1))
    .filter((line) => line.kind === 'perforated' && isTooShort(line, dashes)).length;
  if (short === 0) return [];
  return [
    {
      code: 'no-gap',
      severity: 'check',
      film: film.name,
      message: `${short === 1 ? '1 perforated line is' : `${short} perforated lines are`} too short to keep a gap of ${formatLength(dashes[1], 'mm')}: ${short === 1 ? 'it is' : 'they are'} cut through from end to end.`,
      waysOut: ['Set shorter dashes and gaps in the recipe', 'Draw the line longer, or join it to the next'],
      measured: short,
      limit: 0,
      key: `no-gap ${film.id}`,
    },
  ];
}

export const cutterNamed = (shop: Shop, id: string | null | undefined): Cutter | undefined =>
  shop.cutters.find((cutter) => cutter.id === id);

export const orderCutter = ({ cutter }: Choices, shop: Shop): Cutter | undefined =>
  cutterNamed(shop, cutter.order) ?? shop.cutters[0];

/** What of the layout one film reads. */
export function layoutOf(
  { rolls, packed, packFilm, weedLines: _apart, guests: _others, ...layout }: LayoutChoices,
  film: string,
): LyingChoices {
  const only = <T>(list: Readonly<Record<string, T>>): Readonly<Record<string, T>> => {
    const its = own(list, film);
    return its === undefined ? {} : { [film]: its };
  };
  return { ...layout, rolls: only(rolls), packed: only(packed), packFilm: only(packFilm) };
}

/** What of the layout the weeding of one strip reads. */
function weedingOf(
  { border, borderDistance, pack, packFilm, weedLines }: LayoutChoices,
  { id, film }: Strip,
) {
  const byHand = weedLines.way === 'hand' ? (own(weedLines.byHand, id) ?? []) : [];
  const isPacked = packOf({ pack, packFilm }, film) !== 'one';
  return { border, borderDistance, isPacked, weedLines: { ...weedLines, byHand } };
}

/** What of a cutter the layout reads. */
export const bedOf = ({
  name,
  kind,
  widest,
  narrowest,
  thickest,
  margins,
  trackLength,
  reserve,
  device,
}: Cutter): Bed => ({
  name,
  kind,
  widest,
  narrowest,
  thickest,
  margins,
  trackLength,
  reserve,
  device: { tools: device.tools },
});

/** What of a cutter the knife's way reads. */
export const machineOf = ({ margins, motion, ownSpeed, speed, device }: Cutter): Machine => ({
  slowest: device.sendsSpeed ? speed.least : null,
  lead: margins.lead,
  motion,
  ownSpeed,
  device: {
    step: device.step,
    lengths: device.lengths,
    tools: device.tools,
    acrossReversed: device.acrossReversed,
  },
});

/** Films as what is seen of them depends on: what is on the shelf, or is to lie there, does not count. */
export const withoutStock = (films: readonly Film[]): Film[] =>
  films.map(({ low: _low, pack: _pack, coming: _coming, ...film }) => ({ ...film, rolls: [] }));

/** The separation with its films as they are on the shelf. */
export function withStock(separation: Separation, stock: readonly Film[]): Separation {
  const films = new Map(stock.map((film) => [film.id, film]));
  const live = (film: Film): Film => films.get(film.id) ?? film;
  return {
    ...separation,
    colours: separation.colours.map((colour) => ({ ...colour, film: colour.film && live(colour.film) })),
    films: separation.films.map((layer) => ({ ...layer, film: live(layer.film) })),
  };
}
