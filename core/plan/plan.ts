/** The chain: artwork and choices in, everything else out. The same code in the browser, the server and the CLI. */
import { own } from '../units/own';
import type { Artwork } from '../readers/artwork';
import { sourceKey } from '../artwork/choices';
import { preparing } from '../artwork/prepare';
import type { CheckSteps } from '../checks/checkOver';
import { atOnce, checkOver } from '../checks/checkOver';
import type { Film } from '../films/film';
import { seenColours } from '../films/seen';
import type { FilmLayer, Separation } from '../films/separate';
import { separating } from '../films/separate';
import type { Again, PanelsAgain } from '../films/again';
import type { Finding } from '../findings/finding';
import type { Bed, Cutter, Machine } from '../layout/cutter';
import type { LayoutChoices } from '../layout/strip';
import { layOut } from '../layout/layOut';
import { panelRoomOf } from '../layout/panelRoom';
import type { Apart } from '../panels/panel';
import { panel } from '../panels/panel';
import type { PanelRoom } from '../panels/room';
import type { SeamOffers } from '../panels/panelling';
import { panelling, seamOffers, takenApart } from '../panels/panelling';
import { kindRecipes } from '../toolpath/kinds';
import { programFor } from '../toolpath/program';
import type { Tell } from '../stages/progress';
import { between, untold } from '../stages/progress';
import type { MakeStage } from '../stages/remember';
import { createMemory } from '../stages/remember';
import { assemble, from, leave } from './assemble';
import type { Choices } from './choices';
import type { FilmCut, Plan } from './planned';
import type { Shop } from './shop';
import { changedRecipe, noRecipe, ownRecipes, recipeOf } from './recipes';

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
      const { overlap, onTop, reserve } = choices.panels;
      return [
        filmCut(
          film,
          choices,
          shop,
          own && { panelling: seams, choices: { overlap, onTop, skip, reserve }, room: own.room, only },
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
