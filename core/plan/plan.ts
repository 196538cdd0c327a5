/** The chain: artwork and choices in, everything else out. The same code in the browser, the server and the CLI. */
import { own } from '../units/own';
import type { Artwork } from '../artwork/artwork';
import type { ArtworkChoices, Ignored, Piece } from '../artwork/choices';
import { isSame, NO_LINE_RULES, sourceKey } from '../artwork/choices';
import type { PreparedArtwork } from '../artwork/prepare';
import { prepare } from '../artwork/prepare';
import type { PreparedPiece, SizeChoices } from '../artwork/preparePiece';
import { preparePiece } from '../artwork/preparePiece';
import type { CheckSteps } from '../checks/checkOver';
import { atOnce, checkOver } from '../checks/checkOver';
import type { Film } from '../films/film';
import type { Folds } from '../films/fold';
import type { SeenColour } from '../films/seen';
import { seenColours } from '../films/seen';
import type { FilmChoices, Separation } from '../films/separate';
import { NO_FILM_CHOICES, separate } from '../films/separate';
import type { Again } from '../films/again';
import { onlyAgain } from '../films/again';
import type { Finding } from '../findings/finding';
import type { Cutter, Recipe } from '../layout/cutter';
import type { LayoutChoices, Strip } from '../layout/layOut';
import { layOut } from '../layout/layOut';
import type { CutProgram } from '../toolpath/program';
import { programFor } from '../toolpath/program';

/** Everything a person decided about an order. Small, stored, undoable. */
export interface Choices {
  readonly artwork: ArtworkChoices;
  readonly films: FilmChoices;
  readonly layout: LayoutChoices;
  readonly cut: CutChoices;
  readonly cutter: string | null;
}

/** What differs from the shop's recipes, by film id. */
export interface CutChoices {
  readonly recipes: Readonly<Record<string, Partial<Recipe>>>;
}

/** What the shop has. */
export interface Shop {
  readonly films: readonly Film[];
  readonly cutters: readonly Cutter[];
  /** By `cutterId/filmId`; a film without one takes `cutterId/*`. */
  readonly recipes: Readonly<Record<string, Recipe>>;
}

/** One cut: a strip with its recipe and all that the knife does. */
export interface PlannedCut {
  readonly strip: Strip;
  readonly recipe: Recipe;
  /** The shop's recipe, before this order's changes. */
  readonly shopRecipe: Recipe;
  readonly program: CutProgram;
}

export interface Totals {
  /** mm of film, mm² of film, seconds at the cutter, changes of film between cuts */
  readonly filmLength: number;
  readonly filmArea: number;
  readonly seconds: number;
  readonly swaps: number;
}

export interface Plan {
  readonly prepared: PreparedArtwork;
  readonly separation: Separation;
  readonly cutter: Cutter | undefined;
  readonly cuts: readonly PlannedCut[];
  readonly totals: Totals;
  readonly findings: readonly Finding[];
}

export const DEFAULT_CHOICES: Choices = {
  artwork: {
    width: null,
    height: null,
    lockAspect: true,
    pieces: [],
    lines: NO_LINE_RULES,
    fixes: [],
    ignored: [],
  },
  films: NO_FILM_CHOICES,
  layout: {
    rolls: {},
    copies: 1,
    spacing: 10,
    turn: 'shorter',
    mirror: 'by-film',
    border: true,
    borderDistance: 5,
    place: 'edge',
  },
  cut: { recipes: {} },
  cutter: null,
};

/** Plans an order; keeps each stage's last results so that a change re-computes only what comes after it. */
export interface Planner {
  /** @param again only these pieces are laid out and cut */
  readonly plan: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    again?: Again,
  ) => Plan;
  /** The check-over of the same order, in steps: only looks, and may take longer than the plan. */
  readonly check: (artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop) => CheckSteps;
  /** How often each stage has really run: what memoisation is tested by. */
  readonly runs: Readonly<Record<Stage, number>>;
}

type Stage = 'piece' | 'prepare' | 'separate' | 'assign' | 'check' | 'layOut' | 'toolpath';

const KEPT = 4;
/** Pieces are many in one order. */
const KEPT_PIECES = 200;

/**
 * A planner with its own memory. Artworks come by {@link sourceKey}: the same key must mean the same artwork.
 */
export function createPlanner(): Planner {
  const runs: Record<Stage, number> = {
    piece: 0,
    prepare: 0,
    separate: 0,
    assign: 0,
    check: 0,
    layOut: 0,
    toolpath: 0,
  };
  const stage = <In extends readonly unknown[], Out>(
    name: Stage,
    compute: (...input: In) => Out,
    most = KEPT,
  ) => {
    const kept = memory<Out>(most);
    return (key: string, ...input: In): Out => {
      const known = kept.get(key);
      if (known !== undefined) return known;
      runs[name]++;
      return kept.keep(key, compute(...input));
    };
  };
  const pieces = stage('piece', preparePiece, KEPT_PIECES);
  const prepareOne = (
    artwork: Artwork,
    { width, height, lockAspect }: SizeChoices,
    { id, source }: Piece,
    { lines, fixes }: ArtworkChoices,
  ): PreparedPiece => {
    const size = { width, height, lockAspect };
    return pieces(keyOf(sourceKey(source), id, size, lines, fixes), artwork, size, { id, lines, fixes });
  };
  const prepared = stage('prepare', (artworks: ReadonlyMap<string, Artwork>, choices: ArtworkChoices) =>
    prepare(artworks, choices, prepareOne),
  );
  const seen = stage('separate', ({ shapes, lines }: PreparedArtwork, fold: Folds): SeenColour[] =>
    seenColours(shapes, lines, fold),
  );
  const assigned = stage('assign', separate);
  const checked = memory<Finding[]>(KEPT);
  const laidOut = stage('layOut', layOut);
  const programs = stage(
    'toolpath',
    (strips: readonly Strip[], choices: Choices, cutter: Cutter, shop: Shop) =>
      strips.map((strip) => planCut(strip, choices, cutter, shop)),
  );

  const upToFilms = (artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop) => {
    const { ignored: _only, ...drawing } = choices.artwork;
    const there = drawing.pieces.map((piece) => artworks.has(sourceKey(piece.source)));
    const sizeKey = keyOf(drawing, there);
    const sized = prepared(sizeKey, artworks, choices.artwork);
    const visible = seen(keyOf(sizeKey, choices.films.fold), sized, choices.films.fold);
    const filmKey = keyOf(sizeKey, choices.films, shop.films);
    const separation = assigned(filmKey, visible, choices.films, shop.films, drawing.fixes, sized);
    const cutter = shop.cutters.find((c) => c.id === choices.cutter) ?? shop.cutters[0];
    return { sized, separation, filmKey, cutter };
  };

  const plan: Planner['plan'] = (artworks, choices, shop, again) => {
    const { sized, separation, filmKey, cutter } = upToFilms(artworks, choices, shop);
    const { ignored } = choices.artwork;
    if (!cutter) return assemble(sized, separation, undefined, [], [noCutter()], ignored);
    const layoutKey = keyOf(filmKey, choices.layout, cutter, again);
    const films = again ? onlyAgain(separation.films, again) : separation.films;
    const layout = laidOut(layoutKey, films, choices.layout, cutter);
    const cutKey = keyOf(layoutKey, choices.cut, shop.recipes);
    const cuts = programs(cutKey, layout.strips, choices, cutter, shop);
    return assemble(sized, separation, cutter, cuts, layout.findings, ignored);
  };

  function* check(artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop): CheckSteps {
    const { sized, separation, filmKey, cutter } = upToFilms(artworks, choices, shop);
    const step = cutter?.device.step;
    const key = keyOf(filmKey, step);
    let found = checked.get(key);
    if (!found) {
      runs.check++;
      found = checked.keep(key, yield* checkOver(artworks, choices.artwork, sized, separation, step));
    }
    return leave(found, choices.artwork.ignored);
  }
  return { plan, check, runs };
}

/** The last so many results, by key. */
function memory<Out>(most: number) {
  const kept = new Map<string, Out>();
  const keep = (key: string, made: Out): Out => {
    kept.set(key, made);
    if (kept.size > most) kept.delete(kept.keys().next().value as string);
    return made;
  };
  return { get: (key: string): Out | undefined => kept.get(key), keep };
}

const keyOf = (...parts: readonly unknown[]): string => JSON.stringify(parts);

function planCut(strip: Strip, choices: Choices, cutter: Cutter, shop: Shop): PlannedCut {
  const shopRecipe = shop.recipes[`${cutter.id}/${strip.film.id}`] ?? shop.recipes[`${cutter.id}/*`];
  if (!shopRecipe) throw new Error(`no recipe for ${strip.film.id} on ${cutter.id}`);
  const recipe = { ...shopRecipe, ...own(choices.cut.recipes, strip.film.id) };
  return { strip, recipe, shopRecipe, program: programFor(strip, recipe, cutter) };
}

const noCutter = (): Finding => ({
  code: 'no-cutter',
  severity: 'stop',
  message: 'The shop has no cutter yet.',
  waysOut: ['Add a cutter'],
});

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

function assemble(
  prepared: PreparedArtwork,
  separation: Separation,
  cutter: Cutter | undefined,
  cuts: readonly PlannedCut[],
  moreFindings: readonly Finding[],
  ignored: readonly Ignored[],
): Plan {
  const sum = (of: (cut: PlannedCut) => number): number => cuts.reduce((total, cut) => total + of(cut), 0);
  return {
    prepared,
    separation,
    cutter,
    cuts,
    totals: {
      filmLength: sum((cut) => cut.strip.length),
      filmArea: sum((cut) => cut.strip.area),
      seconds: sum((cut) => cut.program.seconds),
      swaps: Math.max(0, cuts.length - 1),
    },
    findings: leave(
      withNothing([...prepared.findings, ...separation.findings, ...moreFindings], cuts),
      ignored,
    ),
  };
}

/** That there is nothing to cut is always said. */
function withNothing(findings: readonly Finding[], cuts: readonly PlannedCut[]): readonly Finding[] {
  if (cuts.length > 0 || findings.some(({ severity }) => severity === 'stop')) return findings;
  return [
    ...findings,
    {
      code: 'nothing',
      severity: 'stop',
      message: 'There is nothing to cut in this order.',
      waysOut: ['Bring in a drawing, or type a text, under Artwork', 'Switch colours on under Films'],
    },
  ];
}

/** Findings that a person leaves as they are only tell, with the reason; what keeps an order back cannot be left. */
function leave(findings: readonly Finding[], ignored: readonly Ignored[]): Finding[] {
  if (ignored.length === 0) return [...findings];
  return findings.map((finding) => {
    const { key } = finding;
    const reason = key === undefined ? undefined : ignored.find((left) => isSame(left.key, key))?.reason;
    if (reason === undefined || finding.severity === 'stop') return finding;
    return { ...finding, severity: 'note', ignored: reason };
  });
}
