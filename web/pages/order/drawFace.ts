/** The finished sign on canvas: films stacked as they are seen, or each on a sheet of its own. */
import { drawLines } from '../../stage/lineKinds';
import { fillAll, pathOfRegion, strokeAll } from '../../stage/paths';
import type { ColourView, PlanView } from '../../workers/packed';
import type { PrintedArea } from '../../workers/packedSheets';
import { drawArea } from './print/drawSheet';
import type { Pictures } from './print/pictures';
import { isArt } from './print/pictures';

const INK = '#261c2c';

/** Colours that come from one film, or go to print. */
export interface FilmGroup {
  readonly id: string;
  readonly colours: readonly ColourView[];
}

/** What is drawn, and how. */
export interface FacePicture {
  readonly plan: PlanView;
  readonly groups: readonly FilmGroup[];
  /** Films apart: where each film's sheet lies, mm; missing: all on one another. */
  readonly apart?: (index: number) => { readonly x: number; readonly y: number };
  readonly outlinesOnly: boolean;
  /** The film that stands out; missing: all do. */
  readonly only?: string;
  readonly showsHidden: boolean;
  readonly ground: string;
  readonly pictures: Pictures;
}

/** Draws the sign, yielding between outlines. */
export function* drawFace(
  context: CanvasRenderingContext2D,
  scale: number,
  face: FacePicture,
): Generator<void> {
  const { plan, groups, apart } = face;
  if (!apart) {
    drawGround(context, scale, face);
    for (const group of groups) yield* drawFilm(context, scale, face, group);
    yield* strokeAll(context, plan.marks, '#665b6c', scale);
    if (face.showsHidden) yield* drawHidden(context, scale, face);
    yield* drawLines(context, plan.lines, scale, face.ground);
    return;
  }
  for (const [i, group] of groups.entries()) {
    const { x, y } = apart(i);
    context.save();
    context.translate(x, y);
    drawGround(context, scale, face);
    yield* drawFilm(context, scale, face, group);
    const own = new Set(group.colours.map((c) => c.colour));
    const lines = plan.lines.filter((line) => own.has(line.colour));
    yield* drawLines(context, lines, scale, face.ground);
    context.restore();
  }
}

/** What lies under other films: outlined in the film's own colour over what hides it. */
function* drawHidden(
  context: CanvasRenderingContext2D,
  scale: number,
  { plan }: FacePicture,
): Generator<void> {
  for (const { film, hidden } of plan.films) {
    context.globalAlpha = 0.75;
    yield* fillAll(context, hidden, film.colour, scale);
    context.globalAlpha = 1;
    yield* strokeAll(context, hidden, '#5e2750', scale);
  }
}

function drawGround(context: CanvasRenderingContext2D, scale: number, { plan, ground }: FacePicture): void {
  const { width, height } = plan;
  const rim = Math.max(width, height) * 0.02;
  context.fillStyle = ground;
  context.strokeStyle = '#d8cebc';
  context.lineWidth = 1 / scale;
  context.fillRect(-rim, -rim, width + 2 * rim, height + 2 * rim);
  context.strokeRect(-rim, -rim, width + 2 * rim, height + 2 * rim);
}

/** Pictures that are printed where a colour stands for them. */
const picturesOf = ({ printed }: PlanView, colour: string): readonly PrintedArea[] =>
  printed?.art.filter((area) => area.picture && area.colour === colour && isArt(area)) ?? [];

function* drawFilm(
  context: CanvasRenderingContext2D,
  scale: number,
  { plan, only, outlinesOnly, pictures }: FacePicture,
  { id, colours }: FilmGroup,
): Generator<void> {
  const standsOut = only === undefined || only === id;
  context.globalAlpha = standsOut || outlinesOnly ? 1 : 0.18;
  for (const { region, goesTo, film, colour } of colours) {
    const shown = goesTo === 'print' ? picturesOf(plan, colour) : [];
    if (outlinesOnly) yield* strokeAll(context, region, standsOut ? INK : '#c9bfb0', scale);
    else if (shown.length > 0) {
      context.save();
      context.clip(pathOfRegion(region));
      for (const area of shown) yield* drawArea(context, area, scale, pictures);
      context.restore();
    } else yield* fillAll(context, region, (goesTo === 'film' ? film?.colour : undefined) ?? colour, scale);
  }
  context.globalAlpha = 1;
}
