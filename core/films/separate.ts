import { lineLength } from '../geometry/path';
import { own } from '../units/own';
import type { Finding, Fix } from '../findings/finding';
import { PLACE_FIXES } from '../artwork/choices';
import type { PreparedLine, PreparedShape } from '../artwork/preparePiece';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, joinBounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { dropSlivers, intersection, outlineLength, regionArea, regionBounds, weld } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import { deltaE, labOf } from '../colour/colour';
import type { Film } from './film';
import { buildOf } from './film';
import type { ColourPlan } from './colourPlan';
import { isCutLine } from './colourPlan';
import type { Folds } from './fold';
import { folded } from './fold';
import type { MarkChoices } from './marks';
import { markPlaces, markRegion } from './marks';
import { mend } from './mend';
import type { Layered, Overlap, Under } from './overlap';
import type { Tell } from '../stages/progress';
import { untold } from '../stages/progress';
import type { MakeStage } from '../stages/remember';
import { forgetful } from '../stages/remember';
import { layUnder, overlapFindings, overlapOf } from './overlap';
import type { SeenColour } from './seen';

/** What a person decided about colours. Keys are `#rrggbb` as found in the artwork. */
export interface FilmChoices {
  /** Film for a colour; missing: the nearest in stock. */
  readonly film: Readonly<Record<string, string>>;
  /** Colours that are left out: the surface shows through. */
  readonly off: readonly string[];
  /** Colours that are printed and not cut. */
  readonly print: readonly string[];
  /** Colours in cutting order, base first; missing ones follow in painter's order. */
  readonly order: readonly string[];
  /** Colours that are painted as another: near-equal ones folded. */
  readonly fold: Folds;
  /** How films lie under those above, by film id; missing: as the film's build asks. */
  readonly overlap: Readonly<Record<string, Overlap>>;
  readonly marks: MarkChoices | null;
  /** Copies by film id, where they differ from the layout's. */
  readonly copies: Readonly<Record<string, number>>;
}

/** Nothing decided: every colour on its nearest film. */
export const NO_FILM_CHOICES: FilmChoices = {
  film: {},
  off: [],
  print: [],
  order: [],
  fold: {},
  overlap: {},
  marks: null,
  copies: {},
};

/** All that is cut from one film: its colours welded. */
export interface FilmLayer {
  readonly film: Film;
  readonly colours: readonly string[];
  /** What is cut: what is seen, what goes under others, and layer marks. */
  readonly region: Region;
  /** The same without layer marks. */
  readonly own: Region;
  /** What is seen of it, edge to edge with the others. */
  readonly seen: Region;
  /** Layer marks with their tabs, which the region holds too. */
  readonly marks: Region;
  /** What of it lies under other films. */
  readonly hidden: Region;
  readonly overlap: Overlap;
  /** Copies of this film; missing: as many as of all. */
  readonly copies?: number;
  /** Lines followed and not cut around, print-only ones left out. */
  readonly lines: readonly PreparedLine[];
  /** Of both. */
  readonly bounds: Bounds;
  /** mm² */
  readonly area: number;
  /** mm */
  readonly outline: number;
}

export interface Separation {
  readonly colours: readonly ColourPlan[];
  readonly films: readonly FilmLayer[];
  /** Layer marks, the same on every film. */
  readonly marks: Region;
  /** Their middles, mm on the sign. */
  readonly markPlaces: readonly Spot[];
  readonly findings: readonly Finding[];
}

/** The film in stock nearest to a colour by ΔE00; ties go to the earlier film. */
export function nearestFilm(
  colour: string,
  films: readonly Film[],
): { film: Film; deltaE: number } | undefined {
  const lab = labOf(colour);
  let best: { film: Film; deltaE: number } | undefined;
  for (const film of films) {
    const difference00 = deltaE(lab, labOf(film.colour));
    if (!best || difference00 < best.deltaE) best = { film, deltaE: difference00 };
  }
  return best;
}

/** The sign that is separated. */
export interface Sign {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly PreparedShape[];
}

/** Films are many in one order. */
const KEPT_FILMS = 120;
const NOTHING = { region: [] as Region };
const NO_MARKS = { region: [] as Region, places: [] as Spot[] };

/** {@link separate} with its steps as stages, so that a planner's remember what they made. */
export function separating(stage: MakeStage) {
  const planned = stage('assign', planColours);
  const gathered = stage('film', seenOf, KEPT_FILMS);
  const painted = stage('painted', paintedIn, KEPT_FILMS);
  const under = stage('overlap', layUnder, KEPT_FILMS);
  const marked = stage('marks', layerMarks);
  const layered = stage('layer', layerOf, KEPT_FILMS);
  const found = stage('films', findingsOf);
  const whole = stage('separation', (separation: Separation) => separation);
  return (
    seen: readonly SeenColour[],
    choices: FilmChoices,
    catalogue: readonly Film[],
    fixes: readonly Fix[] = [],
    sign: Sign = { width: 1, height: 1, shapes: [] },
    tell: Tell = untold,
  ): Separation => {
    const { film, off, print, order } = choices;
    const { width, height, shapes } = sign;
    const places = fixes.filter(({ kind }) => PLACE_FIXES.has(kind));
    const colours = planned(seen, { film, off, print, order }, catalogue, places, { width, height });
    const seenFilms = byFilm(colours).map((own) =>
      gathered(
        own[0].film!,
        own.map(({ colour, region, lines }) => ({ colour, region, lines })),
      ),
    );
    const wanted = seenFilms.length > 1 ? choices.marks : null;
    const marks = wanted ? marked(boundsOf(seenFilms), wanted) : NO_MARKS;
    const films = seenFilms.map((layer, i) => {
      tell(i / seenFilms.length);
      const overlap = overlapOf(layer.film, choices.overlap);
      const uppers = overlap.mode === 'butt' ? [] : seenFilms.slice(i + 1).map(({ region }) => region);
      const beneath =
        overlap.mode === 'full'
          ? painted(shapes, layer.colours, foldsInto(choices.fold, layer.colours))
          : NOTHING;
      const cut = under(layer.region, uppers, overlap, beneath.region);
      return layered(layer, cut, marks.region, overlap, own(choices.copies, layer.film.id));
    });
    const findings = found(colours, seenFilms, films, choices.overlap, choices.marks?.at ? marks.region : []);
    const { region, places: markPlaces } = marks;
    return whole({ colours, films: films.filter(isCut), marks: region, markPlaces, findings });
  };
}

/**
 * Gives each seen colour its film, welds what comes from the same film, and mends what the fixes name.
 * @param fixes those of places are read here: `thicken` and `island`
 * @param sign its size, mm: places are kept as fractions of it; and what is painted, for films that lie whole beneath
 */
export const separate = separating(forgetful);

/** Colours with their films, in cutting order, mended where fixes name a place. */
function planColours(
  seen: readonly SeenColour[],
  choices: ColourChoices,
  catalogue: readonly Film[],
  fixes: readonly Fix[],
  size: { readonly width: number; readonly height: number },
): ColourPlan[] {
  const base = baseFilm(seen, choices, catalogue);
  const drawn = inOrder(seen, choices.order).map((colour) => planColour(colour, choices, catalogue, base));
  return mend(drawn, fixes, size);
}

type ColourChoices = Pick<FilmChoices, 'film' | 'off' | 'print' | 'order'>;

function byFilm(colours: readonly ColourPlan[]): ColourPlan[][] {
  const films = new Map<string, ColourPlan[]>();
  for (const colour of colours) {
    if (colour.goesTo !== 'film' || !colour.film) continue;
    const known = films.get(colour.film.id);
    if (known) known.push(colour);
    else films.set(colour.film.id, [colour]);
  }
  return [...films.values()];
}

/** The colours that are painted as one of these. */
const foldsInto = (fold: Folds, colours: readonly string[]): readonly string[] =>
  Object.keys(fold).filter((colour) => colours.includes(folded(colour, fold)));

/** All that is painted in some colours, or in what is folded into them. */
function paintedIn(
  shapes: readonly PreparedShape[],
  colours: readonly string[],
  folds: readonly string[],
): { readonly region: Region } {
  const own = new Set([...colours, ...folds]);
  return { region: shapes.filter(({ colour }) => own.has(colour)).flatMap(({ region }) => region) };
}

/** Layer marks around the films and where their middles are. */
function layerMarks(
  around: Bounds,
  wanted: MarkChoices,
): { readonly region: Region; readonly places: readonly Spot[] } {
  return { region: markRegion(around, wanted), places: markPlaces(around, wanted) };
}

function findingsOf(
  colours: readonly ColourPlan[],
  seenFilms: readonly SeenFilm[],
  films: readonly FilmLayer[],
  overlap: FilmChoices['overlap'],
  movedMarks: Region,
): Finding[] {
  const cut = films.map((film) => film.own);
  return [
    ...separationFindings(colours, films.filter(isCut)),
    ...overlapFindings(seenFilms, cut, overlap),
    ...markFindings(movedMarks, seenFilms),
  ];
}

/** Sorted by the person's order; colours it does not name keep painter's order behind it. */
function inOrder(seen: readonly SeenColour[], order: readonly string[]): SeenColour[] {
  const place = new Map(order.map((colour, i) => [colour, i]));
  const rank = (s: SeenColour, i: number): number => place.get(s.colour) ?? order.length + i;
  return seen
    .map((s, i) => ({ s, rank: rank(s, i) }))
    .sort((a, b) => a.rank - b.rank)
    .map(({ s }) => s);
}

/** The film that most of the sign is cut from: lines that only divide or crease go into it. */
function baseFilm(
  seen: readonly SeenColour[],
  choices: ColourChoices,
  catalogue: readonly Film[],
): Film | undefined {
  const cut = seen.filter((s) => s.area > 0 && goesTo(s, choices) === 'film');
  if (cut.length === 0) return undefined;
  const largest = cut.reduce((best, s) => (s.area > best.area ? s : best));
  return planColour(largest, choices, catalogue, undefined).film;
}

/** A picture that is not traced goes to print by itself; a film that is picked for it is cut to its outline. */
function goesTo(
  { colour, isPicture }: Pick<SeenColour, 'colour' | 'isPicture'>,
  { off, print, film }: ColourChoices,
): ColourPlan['goesTo'] {
  if (off.includes(colour)) return 'nothing';
  return print.includes(colour) || (isPicture && own(film, colour) === undefined) ? 'print' : 'film';
}

function planColour(
  seen: SeenColour,
  choices: ColourChoices,
  catalogue: readonly Film[],
  base: Film | undefined,
): ColourPlan {
  const plan = { ...seen, goesTo: goesTo(seen, choices) };
  const chosen = catalogue.find((film) => film.id === choices.film[seen.colour]);
  if (chosen)
    return {
      ...plan,
      film: chosen,
      deltaE: deltaE(labOf(seen.colour), labOf(chosen.colour)),
      proposed: false,
    };
  const onlyDivides = seen.region.length === 0 && seen.lines.every((line) => line.kind !== 'kiss');
  if (onlyDivides && base) return { ...plan, film: base, deltaE: 0, proposed: true };
  const nearest = nearestFilm(
    seen.colour,
    catalogue.filter(
      (film) => film.kind === 'sign' && buildOf(film) === 'opaque' && !film.putAway && !film.print,
    ),
  );
  return { ...plan, film: nearest?.film, deltaE: nearest?.deltaE ?? NaN, proposed: true };
}

interface SeenFilm extends Layered {
  readonly lines: readonly PreparedLine[];
}

function seenOf(film: Film, colours: readonly Pick<ColourPlan, 'colour' | 'region' | 'lines'>[]): SeenFilm {
  const rings = colours.flatMap((colour) => colour.region);
  return {
    film,
    colours: colours.map(({ colour }) => colour),
    region: colours.length === 1 ? colours[0].region : dropSlivers(weld(rings)),
    lines: colours.flatMap((colour) => colour.lines.filter((line) => line.kind !== 'print')),
  };
}

const boundsOf = (films: readonly SeenFilm[]): Bounds =>
  films.reduce((sum, { region, lines }) => {
    const own = lines.reduce((box, line) => joinBounds(box, line.bounds), regionBounds(region));
    return joinBounds(sum, own);
  }, emptyBounds());

function layerOf(
  seen: SeenFilm,
  { cut, hidden }: Under,
  marks: Region,
  overlap: Overlap,
  copies: number | undefined,
): FilmLayer {
  const { film, lines } = seen;
  const region = marks.length === 0 ? cut : [...cut, ...marks];
  return {
    film,
    colours: seen.colours,
    region,
    own: cut,
    seen: seen.region,
    marks,
    hidden,
    overlap,
    copies,
    lines,
    bounds: lines.reduce((box, line) => joinBounds(box, line.bounds), regionBounds(region)),
    area: regionArea(region),
    outline: outlineLength(region) + lines.reduce((sum, line) => sum + lineLength(line), 0),
  };
}

/** Marks that a person moved onto the art: they would be cut out of it. */
function markFindings(marks: Region, films: readonly SeenFilm[]): Finding[] {
  if (marks.length === 0) return [];
  const onArt = intersection(
    marks,
    films.flatMap(({ region }) => region),
  );
  if (regionArea(onArt) < 0.01) return [];
  return [
    {
      code: 'mark-on-art',
      severity: 'stop',
      message: 'A layer mark lies on the art: it would be cut out of it.',
      waysOut: ['Drag it off the art', 'Put the marks back around the sign under Films'],
      where: regionBounds(onArt),
    },
  ];
}

const isCut = ({ region, lines }: FilmLayer): boolean => region.length > 0 || lines.length > 0;

/** ΔE00 above which a customer who holds film against artwork sees another colour (common practice, no source). */
const PLAIN_DIFFERENCE = 10;

function separationFindings(colours: readonly ColourPlan[], films: readonly FilmLayer[]): Finding[] {
  const findings: Finding[] = colours
    .filter((c) => c.goesTo === 'film' && c.proposed && c.film && c.deltaE > PLAIN_DIFFERENCE)
    .map((c) => ({
      code: 'film-far-off',
      severity: 'check' as const,
      message: `No film in stock is close to ${c.colour}: ${c.film!.name} is ΔE ${c.deltaE.toFixed(1)} away.`,
      waysOut: ['Pick the film yourself under Films', 'Switch the colour off'],
      where: regionBounds(c.region),
      measured: c.deltaE,
      limit: PLAIN_DIFFERENCE,
    }));
  const toPrint = colours.filter((c) => c.goesTo === 'print');
  const printed = toPrint.filter((c) => !isCutLine(c));
  if (printed.length > 0) {
    findings.push({
      code: 'to-print',
      severity: 'note',
      message: `${printed.map((c) => c.colour).join(', ')} ${printed.length === 1 ? 'goes' : 'go'} to print, on sheets that are cut around: see Print marks.`,
    });
  }
  if (colours.length > 0 && films.length === 0 && toPrint.length === 0) {
    findings.push({
      code: 'all-off',
      severity: 'stop',
      message: 'Every colour is switched off, so there is nothing to cut.',
      waysOut: ['Switch a colour on under Films'],
    });
  }
  return findings;
}
