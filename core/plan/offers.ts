/** What other choices would come to: seams, ways to take art apart, stock, copies; and searches for less film. */
import type { Artwork } from '../readers/artwork';
import type { PreparedArtwork } from '../artwork/prepare';
import type { Roll } from '../films/film';
import type { Separation } from '../films/separate';
import type { Finding } from '../findings/finding';
import type { Held, HeldPiece } from '../layout/dragging';
import { holdPiece } from '../layout/dragging';
import { laidPieces } from '../layout/layOut';
import type { MakeOutline } from '../layout/onFilm';
import type { PackStep } from '../layout/packCloser';
import { packCloser } from '../layout/packCloser';
import type { LayoutChoices, Pack } from '../layout/strip';
import { lengthOfStrips, PACKS, packOf } from '../layout/strip';
import { NO_WEED_LINES } from '../layout/weedChoices';
import type { Lying } from '../packing/lying';
import type { PanelChoices, OfferedWay, SeamChoices } from '../panels/choices';
import { NO_PANEL_CHOICES, OFFERED_WAYS } from '../panels/choices';
import type { typedLetters } from '../panels/gather';
import type { inkSamples, panellingBy, SeamOffers } from '../panels/panelling';
import { takenApart } from '../panels/panelling';
import type { piecesOf } from '../panels/pieces';
import type { Choices } from './choices';
import type { InviteGuests, JoinParts } from './guests';
import type { FilmToCut, layingFilms, TakenApart } from './filmsToCut';
import {
  apartOf,
  bedOf,
  filmsToCut,
  hasRoom,
  layersAndRooms,
  layoutOf,
  orderCutter,
  withStock,
} from './filmsToCut';
import { own } from '../units/own';
import type { Guest } from './sharing';
import type { printing } from './printing';
import { NO_SHARING } from './sharing';
import type { Shop } from './shop';

/** How long a search for less film goes on, for each strip, and for which film; missing: for all of them. */
export interface PackAsked {
  readonly rounds: number;
  readonly seed: number;
  readonly film?: string;
  /** Films that are left as they are packed, by id. */
  readonly stays?: (film: string) => boolean;
}

/** mm of film that a way to take art apart comes to. */
export interface PackOffer {
  readonly pack: Pack;
  readonly length: number;
}

/** What a film comes to when it is cut from one roll, pile of sheets or offcut. */
export interface StockOffer {
  readonly roll: Roll;
  /** mm of it that are taken, all strips together; undefined: it does not fit. */
  readonly length: number | undefined;
  /** Why it does not fit, or what has to be looked at. */
  readonly findings: readonly Finding[];
}

/** mm of a film with another order on it, and what it saves. */
export interface JoinOffer {
  readonly guest: number;
  /** Both together; undefined: they do not fit. */
  readonly together: number | undefined;
  /** The other order by itself. */
  readonly alone: number | undefined;
  /** This one as it is now. */
  readonly now: number;
}

type Asked<More extends readonly unknown[] = []> = readonly [
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
  shop: Shop,
  ...more: More,
];

export interface Offers {
  /** What each way to place seams comes to, and the art that one would cut, one way more each time; none: nothing is taken apart. */
  readonly seams: (...asked: Asked) => Generator<SeamOffers, void, void>;
  /**
   * Packs the films closer that are taken apart for it, round by round, one film after the other. The same seed and
   * rounds end in the same places.
   */
  readonly pack: (...asked: Asked<[how: PackAsked]>) => Generator<PackStep, void, void>;
  /** A piece of a film that is packed, held over it. @returns undefined: it is not there */
  readonly hold: (
    ...asked: Asked<[piece: HeldPiece & { readonly film: string }]>
  ) => ((lying: Lying) => Held) | undefined;
  /** What each way to take art apart would come to before anything is packed closer; undefined: another film of it is laid. */
  readonly packs: (...asked: Asked) => Generator<PackOffer | undefined, void, void>;
  /** What one film comes to on each roll, pile and offcut that its cutter takes, one by one. */
  readonly stocks: (...asked: Asked<[film: string]>) => Generator<StockOffer, void, void>;
  /** What a film comes to when one more order is cut on it, order by order; undefined: one of them is half worked out. */
  readonly joins: (
    ...asked: Asked<[film: string, guests: readonly Guest[]]>
  ) => Generator<JoinOffer | undefined, void, void>;
  /** As many copies as every film has room for on what it is cut from, in one strip: more each time, at last as many. */
  readonly most: (...asked: Asked) => Generator<number, void, void>;
}

/** The chain up to where art lies on film. */
export interface Chain {
  readonly drawnOn: (...asked: Asked) => {
    readonly drawn: PreparedArtwork;
    readonly separation: Separation;
    readonly invite: (choices: Choices) => InviteGuests;
  };
  readonly takenFrom: (drawn: PreparedArtwork, films: readonly FilmToCut[], choices: Choices) => TakenApart;
  readonly laid: ReturnType<typeof layingFilms>;
  readonly pieces: typeof piecesOf;
  readonly joined: JoinParts;
  readonly outlines: MakeOutline;
  readonly letters: typeof typedLetters;
  readonly offer: ReturnType<typeof panellingBy>['offer'];
  readonly ink: typeof inkSamples;
  readonly ready: ReturnType<typeof printing>['ready'];
}

/** No order has more copies. */
const MOST_COPIES = 1000;

export function offersBy({
  drawnOn,
  takenFrom,
  laid,
  pieces,
  joined,
  outlines,
  letters,
  offer,
  ink,
  ready,
}: Chain): Offers {
  /** Films on their way to a cutter; undefined: there is none. */
  const onTheWay = (...[artworks, choices, shop]: Asked) => {
    const { drawn, separation, invite } = drawnOn(artworks, choices, shop);
    const usual = orderCutter(choices, shop);
    if (!usual) return undefined;
    const stocked = withStock(separation, shop.films);
    const films = (own: Choices, stock = stocked): FilmToCut[] =>
      filmsToCut(separation, stock, usual, own, shop, invite(own));
    /** All films of other choices as they would lie; weed lines take no film. */
    const layings = function* (layout: Partial<LayoutChoices>, all?: readonly FilmToCut[]) {
      const own = { ...choices, layout: { ...choices.layout, ...layout, weedLines: NO_WEED_LINES } };
      const its = all ?? films(own);
      const taken = takenFrom(drawn, its, own);
      for (const film of its) {
        const made = laid(film, own, apartOf(film, taken, own), undefined, () => letters(drawn.shapes));
        yield { film, strips: made.strips, findings: [...made.findings, ...(taken.seams?.findings ?? [])] };
      }
    };
    return { drawn, separation, films, layings };
  };

  /** Films that are taken apart to be packed, and their pieces on them. */
  const packedFilms = (...asked: Asked) => {
    const way = onTheWay(...asked);
    const [, choices] = asked;
    return (way?.films(choices) ?? []).flatMap(({ layer, film, cutter, guests }) => {
      const pack = packOf(choices.layout, film);
      if (pack === 'one') return [];
      const on = () => {
        const parts = joined(pieces(layer, pack, letters(way!.drawn.shapes)), guests.parts);
        return laidPieces(film, parts, layoutOf(choices.layout, film.id), bedOf(cutter), outlines);
      };
      return [{ film, on }];
    });
  };

  /** mm that an order takes of a film; undefined: it has nothing on it, or does not fit. */
  const lengthOn = (film: string, ...asked: Asked): number | undefined => {
    const way = onTheWay(...asked);
    const its = way?.films(asked[1]).filter((one) => one.film.id === film) ?? [];
    const [laid] = way?.layings({}, its) ?? [];
    return !laid || laid.strips.length === 0 || hasStop(laid.findings)
      ? undefined
      : lengthOfStrips(laid.strips);
  };

  return {
    *seams(artworks, choices, shop) {
      const way = onTheWay(artworks, choices, shop);
      if (!way) return;
      const whole = ready(way.drawn, way.separation, choices, shop).toPrint?.whole;
      const roomed = [...way.films(choices).filter(hasRoom), ...(whole ? [whole] : [])];
      const crossed = takenApart(roomed, choices.panels);
      const needed = takenApart(roomed, { ...choices.panels, way: 'when-needed' });
      if (crossed.length + needed.length === 0) return;
      const shown = crossed.length > 0 ? crossed : needed;
      let offers: SeamOffers = { ways: [], ink: ink(shown.map(({ layer }) => layer)) };
      yield offers;
      for (const name of OFFERED_WAYS) {
        const apart = takenApart(roomed, { way: name });
        if (apart.length === 0) continue;
        const own = offeredChoices(choices.panels, name);
        const found = offer(...layersAndRooms(apart), letters(way.drawn.shapes), own);
        if (!found) continue;
        offers = { ...offers, ways: [...offers.ways, found] };
        yield offers;
      }
    },

    *pack(artworks, choices, shop, { film: only, stays, ...how }) {
      for (const { film, on } of packedFilms(artworks, choices, shop)) {
        const isAsked = (only === undefined || film.id === only) && !stays?.(film.id);
        const laidOn = isAsked ? on() : undefined;
        if (laidOn) yield* packCloser(laidOn, how);
      }
    },

    hold(artworks, choices, shop, { film: id, ...piece }) {
      const own = packedFilms(artworks, choices, shop).find(({ film }) => film.id === id);
      const laidOn = own?.on();
      return laidOn && holdPiece(laidOn, piece);
    },

    *packs(artworks, choices, shop) {
      const way = onTheWay(artworks, choices, shop);
      if (!way) return;
      for (const pack of PACKS) {
        let [length, isStopped] = [0, false];
        for (const { strips, findings } of way.layings({ pack, packFilm: {} })) {
          length += lengthOfStrips(strips);
          isStopped ||= hasStop(findings);
          yield undefined;
        }
        if (!isStopped && length > 0) yield { pack, length };
      }
    },

    *stocks(artworks, choices, shop, id) {
      const way = onTheWay(artworks, choices, shop);
      const film = way && withStock(way.separation, shop.films).films.find((one) => one.film.id === id)?.film;
      if (!film) return;
      for (const roll of film.rolls) {
        const rolls = { ...choices.layout.rolls, [id]: roll.offcut ?? roll.width };
        const layout = { ...choices.layout, rolls };
        const only = withStock(way.separation, [{ ...film, rolls: [roll] }]);
        const its = way.films({ ...choices, layout }, only).filter((one) => one.film.id === id);
        for (const { strips, findings } of way.layings({ rolls }, its)) {
          yield { roll, length: strips.length === 0 ? undefined : lengthOfStrips(strips), findings };
        }
      }
    },

    *joins(artworks, choices, shop, film, guests) {
      const { sharing = NO_SHARING } = shop;
      const now = lengthOn(film, artworks, choices, shop);
      if (now === undefined) return;
      for (const guest of guests) {
        const ids = [...(own(choices.layout.guests, film) ?? []), guest.id];
        const layout = { ...choices.layout, guests: { ...choices.layout.guests, [film]: ids } };
        const others = sharing.guests.filter(({ id }) => id !== guest.id);
        const along = { ...shop, sharing: { ...sharing, guests: [...others, guest] } };
        const together = lengthOn(film, artworks, { ...choices, layout }, along);
        yield undefined;
        const alone = lengthOn(film, artworks, guest.choices, { ...shop, sharing: NO_SHARING });
        yield { guest: guest.id, together, alone, now };
      }
    },

    *most(artworks, choices, shop) {
      const way = onTheWay(artworks, choices, shop);
      if (!way) return;
      const fits = (copies: number): boolean => {
        for (const { strips, findings } of way.layings({ copies }))
          if (strips.length > 1 || findings.some(isTooMuch)) return false;
        return true;
      };
      // twice as many each time, then half way between what fits and what does not
      let [least, over] = [0, MOST_COPIES + 1];
      for (let copies = 1; over - least > 1;) {
        if (fits(copies)) least = copies;
        else over = copies;
        if (least > 0) yield least;
        copies = over > MOST_COPIES ? Math.min(MOST_COPIES, 2 * copies) : (least + over) >> 1;
        if (over > MOST_COPIES && least === MOST_COPIES) return;
      }
    },
  };
}

/** What seams are placed by. */
export function seamChoices(panels: PanelChoices): SeamChoices {
  const { skip: _skip, surface: _surface, numbers: _numbers, reserve: _reserve, ...choices } = panels;
  return choices;
}

/** The same for a way that is offered: seams by hand do not count, nor numbers that it does not go by. */
function offeredChoices(choices: PanelChoices, way: OfferedWay): SeamChoices {
  const { rows, columns, upright, level } = NO_PANEL_CHOICES;
  const byNumber = way === 'grid' ? {} : { rows, columns };
  return { ...seamChoices(choices), way, ...byNumber, upright, level };
}

const hasStop = (findings: readonly Finding[]): boolean =>
  findings.some(({ severity }) => severity === 'stop');

/** There is not as much film, or it lies in no cutter. */
const isTooMuch = ({ severity, code }: Finding): boolean => severity === 'stop' || code === 'film-short';
