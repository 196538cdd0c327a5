import type { Matrix } from '../core/geometry/matrix';
import { determinant } from '../core/geometry/matrix';
import { rounded } from '../core/units/rounded';
import { largest } from '../core/geometry/lists';
import { componentsOf } from '../core/geometry/nesting';
import { heightOf, widthOf } from '../core/geometry/bounds';
import { costAt, inkProfile } from '../core/panels/ink';
import { copiesOn } from '../core/layout/strip';
import { lineLength } from '../core/geometry/path';
import type { WasteLine } from '../core/panels/part';
import { costOfLine } from '../core/panels/wander';
import type { Plan } from '../core/plan/planned';
import { AXES } from '../core/panels/axis';

/** Lines in the waste by what they are: how many, and their length. */
function wasteOf(plan: Plan) {
  const all = plan.cuts.flatMap(({ strip }) => strip.placements.flatMap(({ part }) => part.waste));
  const sum = (what: WasteLine['what']) => {
    const own = all.filter((line) => line.what === what);
    return { count: own.length, lengthMm: rounded(own.reduce((mm, line) => mm + lineLength(line), 0)) };
  };
  return { keys: sum('key'), numbers: sum('number') };
}

/** Each seam with what it cuts of all films that it takes apart. */
function seamsOf({ panelling, panels, separation }: Plan) {
  if (!panelling) return [];
  const taken = new Set(panels.map(({ film }) => film.id));
  const regions = separation.films.filter(({ film }) => taken.has(film.id)).map(({ region }) => region);
  return AXES.flatMap((axis) => {
    const profile = inkProfile(regions, axis);
    return panelling.seams[axis].map((at, i) => {
      const way = panelling.seams.ways?.[axis][i];
      const { ink, crossings } = way ? costOfLine(regions, way) : costAt(profile, at);
      const { minX, minY, maxX, maxY } = panelling.box;
      const points = axis === 'upright' ? [at, minY, at, maxY] : [minX, at, maxX, at];
      return {
        axis,
        points: Array.from(way ?? points, (v) => rounded(v)),
        crossesMm: rounded(ink),
        crossings,
      };
    });
  });
}

/** Degrees clockwise that a placement is turned by, mirrored before or not. */
function turnOf(matrix: Matrix): number {
  const [a, b] = determinant(matrix) < 0 ? [-matrix[0], -matrix[1]] : matrix;
  const degrees = rounded((Math.atan2(b, a) * 180) / Math.PI);
  return degrees < 0 ? degrees + 360 : degrees;
}

/** What `plan.json` says: everything a person or a script wants to know of a plan, without its geometry. */
export function summarise(plan: Plan) {
  const { prepared, separation, cuts, totals, findings } = plan;
  const { colours } = separation;
  return {
    size: { widthMm: rounded(prepared.width), heightMm: rounded(prepared.height) },
    cutter: plan.cutter?.name ?? null,
    colours: separation.colours.map((c) => ({
      colour: c.colour,
      goesTo: c.goesTo,
      film: c.film?.id ?? null,
      deltaE: rounded(c.deltaE, 2),
      areaMm2: rounded(c.area),
    })),
    films: cuts.map(({ strip, cutter, recipe, program }) => {
      const layer = separation.films.find(({ film }) => film.id === strip.film.id)!;
      return {
        film: strip.film.id,
        id: strip.id,
        cutter: cutter.id,
        name: strip.film.name,
        colours: layer.colours,
        colour: strip.film.colour,
        deltaE: rounded(largest(colours.filter((c) => c.film?.id === strip.film.id).map((c) => c.deltaE)), 2),
        areaMm2: rounded(layer.area),
        outlineMm: rounded(layer.outline),
        mode: layer.overlap.mode,
        overlapMm: layer.overlap.mode === 'trap' ? layer.overlap.by : 0,
        pieces: componentsOf(layer.region).length,
        mirrored: strip.mirrored,
        turned: strip.turned,
        copies: copiesOn(strip),
        strip: {
          rollMm: strip.roll.width,
          cuttableMm: rounded(strip.cuttable),
          lengthMm: rounded(strip.length),
        },
        recipe,
        cutMm: rounded(program.cutLength),
        travelMm: rounded(program.travelLength),
        seconds: rounded(program.seconds, 1),
      };
    }),
    panels: plan.panels.map(({ id, film, cell, bounds, area, isCut }) => ({
      id,
      film: film.id,
      number: cell.number,
      row: cell.row + 1,
      column: cell.column + 1,
      x: rounded(bounds.minX),
      y: rounded(bounds.minY),
      width: rounded(widthOf(bounds)),
      height: rounded(heightOf(bounds)),
      turned: cuts.some(({ strip }) => strip.turned && strip.placements.some(({ part }) => part.id === id)),
      areaMm2: rounded(area),
      cut: isCut,
    })),
    seams: seamsOf(plan),
    waste: wasteOf(plan),
    strips: cuts.map(({ strip }) => ({
      id: strip.id,
      film: strip.film.id,
      file: `${strip.id}.plt`,
      placements: strip.placements.map(({ part, copy, box, matrix }) => ({
        part: part.id,
        copy,
        x: rounded(box.minX),
        y: rounded(box.minY),
        turned: turnOf(matrix) !== 0,
        turnDegrees: turnOf(matrix),
        mirrored: strip.mirrored,
      })),
      lengthMm: rounded(strip.length),
      usedShare: rounded(strip.used, 4),
      weedLines: strip.weeding.lines.flat().map(({ points }) => Array.from(points, (v) => rounded(v))),
    })),
    totals: {
      filmLengthMm: rounded(totals.filmLength),
      filmAreaMm2: rounded(totals.filmArea),
      seconds: rounded(totals.seconds, 1),
      swaps: totals.swaps,
    },
    findings,
  };
}
