import { largest } from '../core/geometry/lists';
import { piecesOf } from '../core/geometry/region';
import type { Plan } from '../core/plan/plan';

const tidy = (n: number, decimals = 3): number => Math.round(n * 10 ** decimals) / 10 ** decimals;

/** What `plan.json` says: everything a person or a script wants to know of a plan, without its geometry. */
export function summarise(plan: Plan) {
  const { prepared, separation, cuts, totals, findings } = plan;
  const { colours } = separation;
  return {
    size: { widthMm: tidy(prepared.width), heightMm: tidy(prepared.height) },
    cutter: plan.cutter?.name ?? null,
    colours: separation.colours.map((c) => ({
      colour: c.colour,
      goesTo: c.goesTo,
      film: c.film?.id ?? null,
      deltaE: tidy(c.deltaE, 2),
      areaMm2: tidy(c.area),
    })),
    films: cuts.map(({ strip, recipe, program }) => ({
      film: strip.film.id,
      name: strip.film.name,
      colours: strip.layer.colours,
      colour: strip.film.colour,
      deltaE: tidy(largest(colours.filter((c) => c.film?.id === strip.film.id).map((c) => c.deltaE)), 2),
      areaMm2: tidy(strip.layer.area),
      outlineMm: tidy(strip.layer.outline),
      mode: strip.layer.overlap.mode,
      overlapMm: strip.layer.overlap.mode === 'trap' ? strip.layer.overlap.by : 0,
      pieces: piecesOf(strip.layer.region).length,
      mirrored: strip.mirrored,
      turned: strip.turned,
      copies: strip.placements.length,
      strip: { rollMm: strip.roll.width, cuttableMm: tidy(strip.cuttable), lengthMm: tidy(strip.length) },
      recipe,
      cutMm: tidy(program.cutLength),
      travelMm: tidy(program.travelLength),
      seconds: tidy(program.seconds, 1),
    })),
    totals: {
      filmLengthMm: tidy(totals.filmLength),
      filmAreaMm2: tidy(totals.filmArea),
      seconds: tidy(totals.seconds, 1),
      swaps: totals.swaps,
    },
    findings,
  };
}
