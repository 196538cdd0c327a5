/** The chain: artwork and choices in, everything else out. The same code in the browser, the server and the CLI. */
import type { Artwork } from '../readers/artwork';
import { sourceKey } from '../artwork/choices';
import { preparing } from '../artwork/prepare';
import type { CheckSteps } from '../checks/checkOver';
import { atOnce, checkOver } from '../checks/checkOver';
import type { Film, Roll } from '../films/film';
import { seenColours } from '../films/seen';
import type { Separation } from '../films/separate';
import { separating } from '../films/separate';
import type { Again, PanelsAgain } from '../films/again';
import type { Finding } from '../findings/finding';
import type { Held, HeldPiece } from '../layout/dragging';
import { holdLaid, packLaid } from '../layout/layOut';
import type { Pack } from '../layout/strip';
import { NO_WEED_LINES } from '../layout/weedChoices';
import { PACKS, packOf } from '../layout/strip';
import type { PackStep } from '../layout/packCloser';
import type { Lying } from '../packing/lying';
import { piecesOf } from '../panels/pieces';
import type { OfferedWay, PanelChoices, SeamChoices } from '../panels/choices';
import { NO_PANEL_CHOICES, OFFERED_WAYS } from '../panels/choices';
import { typedLetters } from '../panels/gather';
import type { SeamOffers } from '../panels/panelling';
import { inkSamples, panellingBy, takenApart } from '../panels/panelling';
import { surfaceFindings } from '../panels/surface';
import type { Tell } from '../stages/progress';
import { between, untold } from '../stages/progress';
import { createMemory } from '../stages/remember';
import { assemble, from, leave } from './assemble';
import type { Choices } from './choices';
import type { FilmToCut, TakenApart } from './filmsToCut';
import {
  apartOf,
  bedOf,
  cuttingFilms,
  filmsToCut,
  hasRoom,
  KEPT_MANY,
  layersAndRooms,
  layingFilms,
  layoutOf,
  NOT_APART,
  orderCutter,
} from './filmsToCut';
import type { Plan } from './planned';
import type { Shop } from './shop';

/** What is asked of a plan beside the order itself. */
export interface Asked {
  /** Only these shapes or panels are laid out and cut. */
  readonly again?: Again | PanelsAgain;
  /** The order's number, as it is written on panels; missing: it has none. */
  readonly order?: number;
  /** Hears how far it is. */
  readonly tell?: Tell;
}

/** How long a search for less film goes on, for each strip, and for which film; missing: for all of them. */
export interface PackAsked {
  readonly rounds: number;
  readonly seed: number;
  readonly film?: string;
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

/** Plans an order; keeps each stage's last results so that a change re-computes only what comes after it. */
export interface Planner {
  readonly plan: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    asked?: Asked,
  ) => Plan;
  /** What each way to place seams comes to, and the art that one would cut, one way more each time; none: nothing is taken apart. */
  readonly seams: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
  ) => Generator<SeamOffers, void, void>;
  /**
   * Packs the films closer that are taken apart for it, round by round, one film after the other. The same seed and
   * rounds end in the same places.
   */
  readonly pack: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    how: PackAsked,
  ) => Generator<PackStep, void, void>;
  /** A piece of a film that is packed, held over it. @returns undefined: it is not there */
  readonly hold: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    piece: HeldPiece & { readonly film: string },
  ) => ((lying: Lying) => Held) | undefined;
  /** What each way to take art apart would come to before anything is packed closer; undefined: another film of it is laid. */
  readonly packs: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
  ) => Generator<PackOffer | undefined, void, void>;
  /** What one film comes to on each roll, pile and offcut that its cutter takes, one by one. */
  readonly stocks: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    film: string,
  ) => Generator<StockOffer, void, void>;
  /** The check-over of the same order, in steps: only looks, and may take longer than the plan. */
  readonly check: (artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop) => CheckSteps;
  /** How often each stage has really run: what memoisation is tested by. */
  readonly runs: Readonly<Record<string, number>>;
}

/** Share of a first plan's time that is over when each stage is (measured on drawings of many thousand parts). */
const DONE = { prepared: 0.15, seen: 0.5, separated: 0.75 } as const;

/**
 * A planner with its own memory. Artworks come by {@link sourceKey}: the same key must mean the same artwork.
 */
export function createPlanner(): Planner {
  const { stage, inSteps, name, runs } = createMemory();
  const prepared = preparing(stage);
  const seen = stage('seen', seenColours);
  const separated = separating(stage);
  const checked = inSteps('check', checkOver);
  const letters = stage('letters', typedLetters);
  const { panelling, offer } = panellingBy(stage);
  const onSurface = stage('surface', (...input: Parameters<typeof surfaceFindings>) => ({
    findings: surfaceFindings(...input),
  }));
  const ink = stage('ink', inkSamples);
  const pieces = stage('pieces', piecesOf, KEPT_MANY);
  const laid = layingFilms(stage, pieces);
  const filmCut = cuttingFilms(stage);

  const upToFilms = (
    artworks: ReadonlyMap<string, Artwork>,
    { artwork, films }: Choices,
    shop: Shop,
    tell: Tell = untold,
  ) => {
    for (const [key, known] of artworks) name(known, key);
    const drawn = prepared(artworks, artwork);
    const visible = seen(drawn.shapes, drawn.lines, films.fold, between(DONE.prepared, DONE.seen, tell));
    const catalogue = shop.films.map(withoutStock);
    const overlapping = between(DONE.seen, DONE.separated, tell);
    return { drawn, separation: separated(visible, films, catalogue, artwork.fixes, drawn, overlapping) };
  };

  /** Films that are laid as one and are too large for it, and the seams between their panels. */
  const takenFrom = (
    { shapes }: ReturnType<typeof prepared>,
    films: readonly FilmToCut[],
    choices: Choices,
  ): TakenApart => {
    const whole = films.filter(({ film }) => packOf(choices.layout, film) === 'one');
    const apart = takenApart(whole.filter(hasRoom), choices.panels);
    if (apart.length === 0) return NOT_APART;
    return {
      apart,
      seams: panelling(...layersAndRooms(apart), letters(shapes), seamChoices(choices.panels)),
    };
  };

  const plan: Planner['plan'] = (artworks, choices, shop, { again, order, tell = untold } = {}) => {
    const { drawn, separation } = upToFilms(artworks, choices, shop, tell);
    const stocked = withStock(separation, shop.films);
    const cutter = orderCutter(choices, shop);
    if (!cutter) return assemble(drawn, stocked, undefined, undefined, [noCutter], choices);
    const toCut = between(DONE.separated, 1, tell);
    const films = filmsToCut(separation, stocked, cutter, choices, shop);
    const shapes = again && 'film' in again ? again : undefined;
    const only = again && 'panels' in again ? again.panels : undefined;
    const taken = shapes ? NOT_APART : takenFrom(drawn, films, choices);
    const made = films.flatMap((film, i) => {
      const apart = apartOf(film, taken, choices, { order, only });
      if ((shapes && shapes.film !== film.film.id) || (only && !apart)) return [];
      toCut(i / films.length);
      return [
        filmCut(
          film,
          laid(film, choices, apart, shapes, () => letters(drawn.shapes)),
          choices,
          shop,
        ),
      ];
    });
    const { seams } = taken;
    const { surface } = choices.panels;
    const found = surface ? onSurface(surface, separation.films, seams).findings : [];
    return assemble(drawn, stocked, cutter, { seams, made }, from('panels', found), choices);
  };

  function* seams(
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
  ): Generator<SeamOffers> {
    const { drawn, separation } = upToFilms(artworks, choices, shop);
    const cutter = orderCutter(choices, shop);
    if (!cutter) return;
    const films = filmsToCut(separation, withStock(separation, shop.films), cutter, choices, shop);
    const roomed = films.filter(hasRoom);
    const crossed = takenApart(roomed, choices.panels);
    const needed = takenApart(roomed, { ...choices.panels, way: 'when-needed' });
    if (crossed.length + needed.length === 0) return;
    const shown = crossed.length > 0 ? crossed : needed;
    let offers: SeamOffers = { ways: [], ink: ink(shown.map(({ layer }) => layer)) };
    yield offers;
    for (const way of OFFERED_WAYS) {
      const apart = takenApart(roomed, { way });
      if (apart.length === 0) continue;
      const found = offer(
        ...layersAndRooms(apart),
        letters(drawn.shapes),
        offeredChoices(choices.panels, way),
      );
      if (!found) continue;
      offers = { ...offers, ways: [...offers.ways, found] };
      yield offers;
    }
  }

  function* check(artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop): CheckSteps {
    const { drawn, separation } = upToFilms(artworks, choices, shop);
    const { ignored, ...drawing } = choices.artwork;
    const sources = new Set(drawing.pieces.map(({ source }) => sourceKey(source)));
    const used = new Map([...artworks].filter(([key]) => sources.has(key)));
    const step = orderCutter(choices, shop)?.device.step;
    const found = yield* checked(used, drawing, drawn, separation, step);
    return leave(from('artwork', found), ignored);
  }
  function* pack(
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    { film: only, ...how }: PackAsked,
  ): Generator<PackStep, void, void> {
    for (const { film, parts, layout, bed } of packedFilms(artworks, choices, shop))
      if (only === undefined || film.id === only) yield* packLaid(film, parts(), layout, bed, how);
  }

  const hold: Planner['hold'] = (artworks, choices, shop, { film: id, ...piece }) => {
    const own = packedFilms(artworks, choices, shop).find(({ film }) => film.id === id);
    return own && holdLaid(own.film, own.parts(), own.layout, own.bed, piece);
  };

  /** Films that are taken apart to be packed, with what their layout reads. */
  const packedFilms = (artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop) => {
    const { drawn, separation } = upToFilms(artworks, choices, shop);
    const usual = orderCutter(choices, shop);
    if (!usual) return [];
    const films = filmsToCut(separation, withStock(separation, shop.films), usual, choices, shop);
    return films.flatMap(({ layer, film, cutter }) => {
      const pack = packOf(choices.layout, film);
      if (pack === 'one') return [];
      const parts = () => pieces(layer, pack, letters(drawn.shapes));
      return [{ film, parts, layout: layoutOf(choices.layout, film.id), bed: bedOf(cutter) }];
    });
  };

  function* packs(
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
  ): Generator<PackOffer | undefined, void, void> {
    const { drawn, separation } = upToFilms(artworks, choices, shop);
    const usual = orderCutter(choices, shop);
    if (!usual) return;
    const stocked = withStock(separation, shop.films);
    for (const way of PACKS) {
      // weed lines take no film
      const layout = { ...choices.layout, pack: way, packFilm: {}, weedLines: NO_WEED_LINES };
      const own = { ...choices, layout };
      const films = filmsToCut(separation, stocked, usual, own, shop);
      const taken = takenFrom(drawn, films, own);
      let length = 0;
      let isStopped = hasStop(taken.seams?.findings ?? []);
      for (const film of films) {
        const { strips, findings } = laid(film, own, apartOf(film, taken, own), undefined, () =>
          letters(drawn.shapes),
        );
        length += strips.reduce((sum, strip) => sum + strip.length, 0);
        isStopped ||= hasStop(findings);
        yield undefined;
      }
      if (!isStopped && length > 0) yield { pack: way, length };
    }
  }
  function* stocks(
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    id: string,
  ): Generator<StockOffer, void, void> {
    const { drawn, separation } = upToFilms(artworks, choices, shop);
    const usual = orderCutter(choices, shop);
    if (!usual) return;
    const film = withStock(separation, shop.films).films.find((one) => one.film.id === id)?.film;
    for (const roll of film?.rolls ?? []) {
      const rolls = { ...choices.layout.rolls, [id]: roll.offcut ?? roll.width };
      const own = { ...choices, layout: { ...choices.layout, rolls, weedLines: NO_WEED_LINES } };
      const films = filmsToCut(separation, withStock(separation, [withRoll(film!, roll)]), usual, own, shop);
      const taken = takenFrom(drawn, films, own);
      const one = films.find(({ film: { id: other } }) => other === id)!;
      const { strips, findings } = laid(one, own, apartOf(one, taken, own), undefined, () =>
        letters(drawn.shapes),
      );
      const length = strips.reduce((sum, strip) => sum + strip.length, 0);
      yield { roll, length: strips.length === 0 ? undefined : length, findings };
    }
  }
  return { plan, seams, pack, hold, packs, stocks, check, runs };
}

/** What seams are placed by. */
function seamChoices(panels: PanelChoices): SeamChoices {
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

/** A film of which only this lies on the shelf. */
const withRoll = (film: Film, roll: Roll): Film => ({ ...film, rolls: [roll] });

/** A film as what is seen of it depends on: what is on the shelf does not count. */
const withoutStock = (film: Film): Film => ({ ...film, rolls: [] });

/** The separation with its films as they are on the shelf. */
function withStock(separation: Separation, stock: readonly Film[]): Separation {
  const films = new Map(stock.map((film) => [film.id, film]));
  const live = (film: Film): Film => films.get(film.id) ?? film;
  return {
    ...separation,
    colours: separation.colours.map((colour) => ({ ...colour, film: colour.film && live(colour.film) })),
    films: separation.films.map((layer) => ({ ...layer, film: live(layer.film) })),
  };
}

const noCutter: Finding = {
  stage: 'cutter',
  code: 'no-cutter',
  severity: 'stop',
  message: 'The shop has no cutter yet.',
  waysOut: ['Add a cutter'],
};

/** A plan with all that was found, for whoever has time for both. */
export function planAndCheck(
  planner: Planner,
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
  shop: Shop,
): Plan {
  const plan = planner.plan(artworks, choices, shop);
  return { ...plan, findings: [...plan.findings, ...atOnce(planner.check(artworks, choices, shop))] };
}
