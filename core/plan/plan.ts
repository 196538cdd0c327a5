/** The chain: artwork and choices in, everything else out. The same code in the browser, the server and the CLI. */
import { own } from '../units/own';
import type { Artwork } from '../readers/artwork';
import type { ArtworkChoices, Ignored } from '../artwork/choices';
import { isSame, NO_LINE_RULES, sourceKey } from '../artwork/choices';
import type { PreparedArtwork } from '../artwork/prepare';
import { preparing } from '../artwork/prepare';
import type { CheckSteps } from '../checks/checkOver';
import { atOnce, checkOver } from '../checks/checkOver';
import type { Film, Roll } from '../films/film';
import { seenColours } from '../films/seen';
import type { FilmChoices, FilmLayer, Separation } from '../films/separate';
import { NO_FILM_CHOICES, separating } from '../films/separate';
import type { Again, PanelsAgain } from '../films/again';
import type { Finding, FindingStage } from '../findings/finding';
import type { Bed, Cutter, Machine, Recipe } from '../layout/cutter';
import type { LayoutChoices, Strip } from '../layout/strip';
import { layOut } from '../layout/layOut';
import { panelRoomOf } from '../layout/panelRoom';
import type { PanelChoices } from '../panels/choices';
import { NO_PANEL_CHOICES } from '../panels/choices';
import type { Apart, PanelPart } from '../panels/panel';
import { panel } from '../panels/panel';
import type { PanelRoom } from '../panels/room';
import type { Panelling } from '../panels/seams';
import type { SeamOffers } from '../panels/panelling';
import { panelling, seamOffers, takenApart } from '../panels/panelling';
import type { OwnRecipes } from '../toolpath/kinds';
import { kindRecipes } from '../toolpath/kinds';
import type { CutProgram } from '../toolpath/program';
import { programFor } from '../toolpath/program';
import type { Tell } from '../stages/progress';
import { between, untold } from '../stages/progress';
import type { MakeStage } from '../stages/remember';
import { createMemory } from '../stages/remember';

/** Everything a person decided about an order. Small, stored, undoable. */
export interface Choices {
  readonly artwork: ArtworkChoices;
  readonly films: FilmChoices;
  readonly panels: PanelChoices;
  readonly layout: LayoutChoices;
  readonly cut: CutChoices;
  readonly cutter: CutterChoices;
}

/** What differs from the shop's recipes, by cutter id and film id: what one blade needs says nothing about another's. */
export interface CutChoices {
  readonly recipes: Readonly<Record<string, Readonly<Record<string, Partial<Recipe>>>>>;
}

export interface CutterChoices {
  /** The cutter that the order goes to; null: the shop's first. */
  readonly order: string | null;
  /** Films that go to another, by id. */
  readonly film: Readonly<Record<string, string>>;
}

/** What the shop has. */
export interface Shop {
  readonly films: readonly Film[];
  readonly cutters: readonly Cutter[];
  /**
   * By `cutterId/filmId` for what is kiss cut, `cutterId/filmId/kind` for other kinds of line; a film without one takes
   * `cutterId/*`, a kind without one is made from the kiss cut's.
   */
  readonly recipes: Readonly<Record<string, Recipe>>;
}

/** One cut: a strip with its recipe and all that the knife does. */
export interface PlannedCut {
  readonly strip: Strip;
  readonly cutter: Cutter;
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
  /** The order's; a cut says where it goes itself. */
  readonly cutter: Cutter | undefined;
  /** Where what is larger than its cutter is taken apart; undefined: nothing is. */
  readonly panelling: Panelling | undefined;
  readonly panels: readonly PanelPart[];
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
  panels: NO_PANEL_CHOICES,
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
  cutter: { order: null, film: {} },
};

/** Plans an order; keeps each stage's last results so that a change re-computes only what comes after it. */
export interface Planner {
  /**
   * @param again only these shapes or panels are laid out and cut
   * @param tell hears how far it is
   */
  readonly plan: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
    again?: Again | PanelsAgain,
    tell?: Tell,
  ) => Plan;
  /** What each way to place seams comes to, and the art that one would cut; undefined: nothing is taken apart. */
  readonly seams: (
    artworks: ReadonlyMap<string, Artwork>,
    choices: Choices,
    shop: Shop,
  ) => SeamOffers | undefined;
  /** The check-over of the same order, in steps: only looks, and may take longer than the plan. */
  readonly check: (artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop) => CheckSteps;
  /** How often each stage has really run: what memoisation is tested by. */
  readonly runs: Readonly<Record<string, number>>;
}

/** Share of a first plan's time that is over when each stage is (measured on drawings of many thousand parts). */
const DONE = { prepared: 0.15, seen: 0.5, separated: 0.75 } as const;

/** Strips and films are many in one order. */
const KEPT_MANY = 200;

/**
 * A planner with its own memory. Artworks come by {@link sourceKey}: the same key must mean the same artwork.
 */
export function createPlanner(): Planner {
  const { stage, inSteps, name, runs } = createMemory();
  const prepared = preparing(stage);
  const seen = stage('seen', seenColours);
  const separated = separating(stage);
  const checked = inSteps('check', checkOver);
  const takeApart = stage('seams', panelling);
  const offered = stage('offers', seamOffers);
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

  const plan: Planner['plan'] = (artworks, choices, shop, again, tell = untold) => {
    const { drawn, separation } = upToFilms(artworks, choices, shop, tell);
    const stocked = withStock(separation, shop.films);
    const cutter = orderCutter(choices, shop);
    if (!cutter) return assemble(drawn, stocked, undefined, undefined, [noCutter], choices);
    const toCut = between(DONE.separated, 1, tell);
    const films = filmsToCut(separation, stocked, cutter, choices, shop);
    const { skip, ...seamChoices } = choices.panels;
    const shapes = again && 'film' in again ? again : undefined;
    const only = again && 'panels' in again ? again.panels : undefined;
    const apart = shapes ? [] : takenApart(films.filter(hasRoom), choices.panels);
    const seams = apart.length === 0 ? undefined : takeApart(...layersAndRooms(apart), seamChoices);
    const made = films.flatMap((film, i) => {
      const own = seams && apart.find(({ layer }) => layer === film.layer);
      if ((shapes && shapes.film !== film.film.id) || (only && !own)) return [];
      toCut(i / films.length);
      const { overlap, onTop } = choices.panels;
      return [
        filmCut(
          film,
          choices,
          shop,
          own && { panelling: seams, choices: { overlap, onTop, skip }, room: own.room, only },
          shapes,
        ),
      ];
    });
    return assemble(drawn, stocked, cutter, { seams, made }, [], choices);
  };

  const seams: Planner['seams'] = (artworks, choices, shop) => {
    const { separation } = upToFilms(artworks, choices, shop);
    const cutter = orderCutter(choices, shop);
    if (!cutter) return undefined;
    const films = filmsToCut(separation, withStock(separation, shop.films), cutter, choices, shop);
    const roomed = films.filter(hasRoom);
    const crossed = takenApart(roomed, choices.panels);
    const needed = takenApart(roomed, { ...choices.panels, way: 'when-needed' });
    const { skip: _skip, way: _way, ...seamChoices } = choices.panels;
    if (crossed.length + needed.length === 0) return undefined;
    const shown = crossed.length > 0 ? crossed : needed;
    return offered(
      shown.map(({ layer }) => layer),
      ...layersAndRooms(needed),
      seamChoices,
    );
  };

  function* check(artworks: ReadonlyMap<string, Artwork>, choices: Choices, shop: Shop): CheckSteps {
    const { drawn, separation } = upToFilms(artworks, choices, shop);
    const { ignored, ...drawing } = choices.artwork;
    const sources = new Set(drawing.pieces.map(({ source }) => sourceKey(source)));
    const used = new Map([...artworks].filter(([key]) => sources.has(key)));
    const step = orderCutter(choices, shop)?.device.step;
    const found = yield* checked(used, drawing, drawn, separation, step);
    return leave(from('artwork', found), ignored);
  }
  return { plan, seams, check, runs };
}

/** A film on its way to a cutter; without a room there it has no roll. */
interface FilmToCut {
  readonly layer: FilmLayer;
  readonly film: Film;
  readonly cutter: Cutter;
  readonly room: PanelRoom | undefined;
}
const layersAndRooms = (films: readonly (FilmToCut & { readonly room: PanelRoom })[]) =>
  [films.map(({ layer }) => layer), films.map(({ room }) => room)] as const;

function filmsToCut(
  separation: Separation,
  stocked: Separation,
  usual: Cutter,
  choices: Choices,
  shop: Shop,
): FilmToCut[] {
  return separation.films.map((layer, i) => {
    const { film } = stocked.films[i];
    const cutter = cutterNamed(shop, own(choices.cutter.film, film.id)) ?? usual;
    return { layer, film, cutter, room: panelRoomOf(film, choices.layout, bedOf(cutter)) };
  });
}

const hasRoom = (film: FilmToCut): film is FilmToCut & { readonly room: PanelRoom } =>
  film.room !== undefined;

/** What one film comes to on its cutter, and what has to be told of how it lies and of its recipe. */
interface FilmCut {
  readonly panels: readonly PanelPart[];
  readonly cuts: readonly PlannedCut[];
  readonly findings: readonly Finding[];
}

function cuttingFilms(stage: MakeStage) {
  const parts = stage('panel', panel, KEPT_MANY);
  const laidOut = stage('layOut', layOut, KEPT_MANY);
  const programs = stage('toolpath', programFor, KEPT_MANY);
  return (
    { layer, film, cutter }: FilmToCut,
    choices: Choices,
    shop: Shop,
    apart: Apart | undefined,
    again: Again | undefined,
  ): FilmCut => {
    const own = layoutOf(choices.layout, film.id);
    const made = parts(layer, apart, again);
    const { panels } = made;
    const { strips, findings } = laidOut(film, made.parts, own, bedOf(cutter));
    const told = [...from('panels', made.findings), ...from('layout', findings)];
    const shopRecipe = recipeOf(shop, cutter, film);
    if (!shopRecipe)
      return { panels, cuts: [], findings: strips.length > 0 ? [...told, noRecipe(film, cutter)] : told };
    const recipe = { ...shopRecipe, ...changedRecipe(choices.cut, shop, cutter, film) };
    const recipes = kindRecipes(recipe, ownRecipes(shop, cutter, film), cutter.force.most);
    const cuts = strips.map((strip) => ({
      strip,
      cutter,
      recipe,
      shopRecipe,
      program: programs(strip, recipes, machineOf(cutter)),
    }));
    return { panels, cuts, findings: told };
  };
}

const cutterNamed = (shop: Shop, id: string | null | undefined): Cutter | undefined =>
  shop.cutters.find((cutter) => cutter.id === id);

const orderCutter = ({ cutter }: Choices, shop: Shop): Cutter | undefined =>
  cutterNamed(shop, cutter.order) ?? shop.cutters[0];

const recipeOf = (shop: Shop, cutter: Cutter, film: Film, kind = ''): Recipe | undefined =>
  own(shop.recipes, `${cutter.id}/${film.id}${kind}`) ?? own(shop.recipes, `${cutter.id}/*${kind}`);

/** Kinds of line that may have a recipe of their own. */
const OTHER_KINDS = ['through', 'perforated', 'crease', 'pen'] as const;

const ownRecipes = (shop: Shop, cutter: Cutter, film: Film): OwnRecipes =>
  Object.fromEntries(
    OTHER_KINDS.flatMap((kind) => {
      const found = recipeOf(shop, cutter, film, `/${kind}`);
      return found ? [[kind, found]] : [];
    }),
  );

/** What an order changes in a film's recipe on one cutter; `*` stands for the shop's first, as older orders have it. */
function changedRecipe(
  { recipes }: CutChoices,
  shop: Shop,
  cutter: Cutter,
  film: Film,
): Partial<Recipe> | undefined {
  const older = shop.cutters[0]?.id === cutter.id ? own(recipes, '*') : undefined;
  return own(own(recipes, cutter.id) ?? {}, film.id) ?? own(older ?? {}, film.id);
}

const from = (stage: FindingStage, findings: readonly Finding[]): Finding[] =>
  findings.map((finding) => ({ ...finding, stage }));

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

/** What of the layout one film reads. */
function layoutOf({ rolls, ...layout }: LayoutChoices, film: string): LayoutChoices {
  const width = own(rolls, film);
  return { ...layout, rolls: width === undefined ? {} : { [film]: width } };
}

/** What of a cutter the layout reads. */
const bedOf = ({ name, kind, widest, narrowest, margins, trackLength, device }: Cutter): Bed => ({
  name,
  kind,
  widest,
  narrowest,
  margins,
  trackLength,
  device: { tools: device.tools },
});

/** What of a cutter the knife's way reads. */
const machineOf = ({ margins, motion, ownSpeed, device }: Cutter): Machine => ({
  lead: margins.lead,
  motion,
  ownSpeed,
  device: { step: device.step, tools: device.tools },
});

const noRecipe = ({ id, name }: Film, cutter: Cutter): Finding => ({
  stage: 'cut',
  code: 'no-recipe',
  film: name,
  severity: 'stop',
  message: `${cutter.name} has no recipe for ${name}, nor one for all films.`,
  waysOut: ['Pick another cutter or film', `Give ${cutter.name} a recipe for ${name}`],
  key: `no-recipe ${id}`,
});

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

function assemble(
  prepared: PreparedArtwork,
  separation: Separation,
  cutter: Cutter | undefined,
  cut: { readonly seams: Panelling | undefined; readonly made: readonly FilmCut[] } | undefined,
  findings: readonly Finding[],
  { artwork: { ignored } }: Choices,
): Plan {
  const { seams, made = [] } = cut ?? {};
  const cuts = made.flatMap((film) => film.cuts);
  const sum = (of: (cut: PlannedCut) => number): number => cuts.reduce((total, cut) => total + of(cut), 0);
  const all = [
    ...from('artwork', prepared.findings),
    ...from('films', separation.findings),
    ...from('panels', seams?.findings ?? []),
    ...made.flatMap((film) => film.findings),
    ...findings,
  ];
  return {
    prepared,
    separation,
    cutter,
    panelling: seams,
    panels: made.flatMap((film) => film.panels),
    cuts,
    totals: {
      filmLength: sum((cut) => cut.strip.length),
      filmArea: sum((cut) => cut.strip.area),
      seconds: sum((cut) => cut.program.seconds),
      swaps: swapsIn(cuts),
    },
    findings: leave(withNothing(all, cuts), ignored),
  };
}

/** Times that film is changed between two cuts of one cutter. */
function swapsIn(cuts: readonly PlannedCut[]): number {
  const loaded = new Map<string, Roll>();
  let swaps = 0;
  for (const { cutter, strip } of cuts) {
    const before = loaded.get(cutter.id);
    if (before && before !== strip.roll) swaps++;
    loaded.set(cutter.id, strip.roll);
  }
  return swaps;
}

/** That there is nothing to cut is always said. */
function withNothing(findings: readonly Finding[], cuts: readonly PlannedCut[]): readonly Finding[] {
  if (cuts.length > 0 || findings.some(({ severity }) => severity === 'stop')) return findings;
  return [
    ...findings,
    {
      stage: 'artwork',
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
