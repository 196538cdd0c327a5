/** The chain: artwork and choices in, everything else out. The same code in the browser, the server and the CLI. */
import type { Artwork } from '../readers/artwork';
import { sourceKey } from '../artwork/choices';
import { preparing } from '../artwork/prepare';
import type { CheckSteps } from '../checks/checkOver';
import { atOnce, checkOver } from '../checks/checkOver';
import type { Film } from '../films/film';
import { seenColours } from '../films/seen';
import { separating } from '../films/separate';
import type { Again, PanelsAgain } from '../films/again';
import type { Finding } from '../findings/finding';
import { outlineOfPart } from '../layout/onFilm';
import { packOf } from '../layout/strip';
import { panel } from '../panels/panel';
import { piecesOf } from '../panels/pieces';
import { typedLetters } from '../panels/gather';
import { inkSamples, panellingBy, takenApart } from '../panels/panelling';
import { surfaceFindings } from '../panels/surface';
import type { Tell } from '../stages/progress';
import { between, untold } from '../stages/progress';
import { createMemory } from '../stages/remember';
import { assemble, from, leave } from './assemble';
import type { Cutter } from '../layout/cutter';
import type { Choices } from './choices';
import type { FilmToCut, RoomedFilm, TakenApart } from './filmsToCut';
import {
  apartOf,
  cuttingFilms,
  filmsToCut,
  hasRoom,
  KEPT_MANY,
  layersAndRooms,
  filmsAway,
  layingFilms,
  NOT_APART,
  cutterNamed,
  orderCutter,
  withoutStock,
  withStock,
} from './filmsToCut';
import { invitingGuests, joiningParts } from './guests';
import type { Plan, PlannedCut } from './planned';
import { allCuts, NOTHING_PRINTED } from './planned';
import type { FollowedCut } from './followedCuts';
import { followCuts, followingBy } from './followedCuts';
import { NOTHING_TO_PRINT, printing } from './printing';
import type { Shop } from './shop';
import { staleFindings } from './staleFindings';
import type { Offers } from './offers';
import { offersBy, seamChoices } from './offers';

/** What is asked of a plan beside the order itself. */
export interface Asked {
  /** Only these shapes or panels are laid out and cut. */
  readonly again?: Again | PanelsAgain;
  /** The order's number, as it is written on panels; missing: it has none. */
  readonly order?: number;
  /** Hears how far it is. */
  readonly tell?: Tell;
}

/** Plans an order; keeps each stage's last results so that a change re-computes only what comes after it. */
export interface Planner extends Offers {
  readonly plan: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    asked?: Asked,
  ) => Plan;
  /** The check-over of the same order, in steps: only looks, and may take longer than the plan. */
  readonly check: (artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop) => CheckSteps;
  /** A cut of a plan, the blade followed over it: at once when the check-over has done so. */
  readonly followed: (cut: PlannedCut) => FollowedCut;
  /** How often each stage has really run: what memoisation is tested by. */
  readonly runs: Readonly<Record<string, number>>;
}

/** More pieces than this are not packed. */
const KEPT_OUTLINES = 2000;

/** Share of a first plan's time that is over when each stage is (measured on drawings of many thousand parts). */
const DONE = { prepared: 0.15, seen: 0.5, separated: 0.75 } as const;

/** Share of a check-over that is over when the art is checked; then blades are followed (measured on the demo orders). */
const ART_CHECKED = 0.7;

/**
 * A planner with its own memory. Artworks come by {@link sourceKey}: the same key must mean the same artwork.
 */
export function createPlanner(): Planner {
  const { stage, inSteps, name, runs } = createMemory();
  const prepared = preparing(stage);
  const seen = stage('seen', seenColours);
  const separated = separating(stage);
  const checked = inSteps('check', checkOver);
  const followed = followingBy(stage);
  const letters = stage('letters', typedLetters);
  const { panelling, offer } = panellingBy(stage);
  const onSurface = stage('surface', (...input: Parameters<typeof surfaceFindings>) => ({
    findings: surfaceFindings(...input),
  }));
  const ink = stage('ink', inkSamples);
  const pieces = stage('pieces', piecesOf, KEPT_MANY);
  // pieces of all films, mirrored or not
  const outlines = stage('outline', outlineOfPart, KEPT_OUTLINES);
  const parts = stage('panel', panel, KEPT_MANY);
  const joined = joiningParts(stage);
  const laid = layingFilms(stage, parts, pieces, joined, outlines);
  const filmCut = cuttingFilms(stage);
  const onSheets = printing(stage, parts);

  const upToFilms = (
    artworks: ReadonlyMap<string, Artwork>,
    { artwork, films }: Pick<Choices, 'artwork' | 'films'>,
    catalogue: readonly Film[],
    tell: Tell = untold,
  ) => {
    for (const [key, known] of artworks) name(known, key);
    const drawn = prepared(artworks, artwork);
    const visible = seen(drawn.shapes, drawn.lines, films.fold, between(DONE.prepared, DONE.seen, tell));
    const overlapping = between(DONE.seen, DONE.separated, tell);
    return { drawn, separation: separated(visible, films, catalogue, artwork.fixes, drawn, overlapping) };
  };

  const invite = invitingGuests(stage, { upToFilms, parts, pieces, letters });

  /** An order's films, and what other orders have on them. */
  const drawnOn = (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    tell: Tell = untold,
  ) => {
    const catalogue = withoutStock(shop.films);
    const made = upToFilms(artworks, choices, catalogue, tell);
    return { ...made, invite: (own: Choices) => invite(artworks, own, shop, catalogue) };
  };

  /** Films that are laid as one and are too large for it, and the seams between their panels. */
  const takenFrom = (
    { shapes }: ReturnType<typeof prepared>,
    films: readonly FilmToCut[],
    choices: Choices,
    print?: RoomedFilm,
  ): TakenApart => {
    const whole = films.filter(({ film }) => packOf(choices.layout, film) === 'one');
    const apart = takenApart([...whole.filter(hasRoom), ...(print ? [print] : [])], choices.panels);
    if (apart.length === 0) return NOT_APART;
    return {
      apart,
      seams: panelling(...layersAndRooms(apart), letters(shapes), seamChoices(choices.panels)),
    };
  };

  const plan: Planner['plan'] = (artworks, choices, shop, { again, order, tell = untold } = {}) => {
    const { drawn, separation, invite } = drawnOn(artworks, choices, shop, tell);
    const stocked = withStock(separation, shop.films);
    const cutter = orderCutter(choices, shop);
    if (!cutter) return assemble(drawn, stocked, undefined, undefined, [noCutter], choices);
    const toCut = between(DONE.separated, 1, tell);
    const films = filmsToCut(separation, stocked, cutter, choices, shop, invite(choices));
    const shapes = again && 'film' in again ? again : undefined;
    const only = again && 'panels' in again ? again.panels : undefined;
    // seams are shared: panels that are cut again have those that they had among all
    const print = shapes ? NOTHING_TO_PRINT : onSheets.ready(drawn, separation, choices, shop);
    const whole = print.toPrint?.whole;
    const taken = shapes ? NOT_APART : takenFrom(drawn, films, choices, whole);
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
    const onPaper =
      again || !print.toPrint
        ? { ...NOTHING_PRINTED, findings: again ? [] : print.findings }
        : onSheets.lay(print.toPrint, whole && apartOf(whole, taken, choices), choices, shop);
    const others = [
      ...from('panels', found),
      ...filmsAway(stocked, shop),
      ...cuttersGone(choices, shop, cutter),
      ...staleFindings(
        {
          cuts: made.flatMap((film) => film.cuts),
          sheets: allCuts({ cuts: [], printed: onPaper.printed }),
          isPanelled: seams !== undefined,
        },
        shop,
      ),
      ...onPaper.findings,
    ];
    return assemble(drawn, stocked, cutter, { seams, made, onPaper }, others, choices);
  };

  function* check(artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop): CheckSteps {
    const { drawn, separation } = drawnOn(artworks, choices, shop);
    const { ignored, ...drawing } = choices.artwork;
    const sources = new Set(drawing.pieces.map(({ source }) => sourceKey(source)));
    const used = new Map([...artworks].filter(([key]) => sources.has(key)));
    const step = orderCutter(choices, shop)?.device.step;
    const found = yield* inPart(0, ART_CHECKED, checked(used, drawing, drawn, separation, step));
    const told = found.flatMap(({ code, where }) => (code === 'double' && where ? [where] : []));
    const { cuts, printed } = plan(artworks, choices, shop);
    const ofCuts = yield* inPart(ART_CHECKED, 1, followCuts(allCuts({ cuts, printed }), followed, told));
    return leave([...from('artwork', found), ...from('cut', ofCuts)], ignored);
  }
  const offers = offersBy({
    drawnOn,
    takenFrom,
    laid,
    pieces,
    joined,
    outlines,
    letters,
    offer,
    ink,
    ready: onSheets.ready,
  });
  return { ...offers, plan, check, followed, runs };
}

/** Steps of which the shares done are a part of a whole. */
function* inPart<Out>(
  begin: number,
  end: number,
  steps: Generator<number, Out, void>,
): Generator<number, Out, void> {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    yield begin + (end - begin) * value;
  }
}

/** A cutter that was picked and is not in use any more: another one takes its place, which has to be known. */
function cuttersGone({ cutter: { order, film } }: Choices, shop: Shop, instead: Cutter): Finding[] {
  const picked = [order, ...Object.values(film)].filter(
    (id): id is string => id !== null && id !== undefined,
  );
  if (picked.every((id) => cutterNamed(shop, id))) return [];
  return [
    {
      stage: 'cutter',
      code: 'cutter-gone',
      severity: 'check',
      message: `The cutter that was picked is not in use any more; ${instead.name} takes its place.`,
      waysOut: ['Pick one under Cutter', 'Take the cutter into use again under Cutters'],
    },
  ];
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
  asked: Asked = {},
): Plan {
  const plan = planner.plan(artworks, choices, shop, asked);
  return { ...plan, findings: [...plan.findings, ...atOnce(planner.check(artworks, choices, shop))] };
}
