import { largest } from '../core/geometry/lists';
import { piecesOf } from '../core/geometry/nesting';
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
    films: cuts.map(({ strip, cutter, recipe, program }) => {
      const layer = separation.films.find(({ film }) => film.id === strip.film.id)!;
      return {
        film: strip.film.id,
        id: strip.id,
        cutter: cutter.id,
        name: strip.film.name,
        colours: layer.colours,
        colour: strip.film.colour,
        deltaE: tidy(largest(colours.filter((c) => c.film?.id === strip.film.id).map((c) => c.deltaE)), 2),
        areaMm2: tidy(layer.area),
        outlineMm: tidy(layer.outline),
        mode: layer.overlap.mode,
        overlapMm: layer.overlap.mode === 'trap' ? layer.overlap.by : 0,
        pieces: piecesOf(layer.region).length,
        mirrored: strip.mirrored,
        turned: strip.turned,
        copies: strip.placements.length,
        strip: { rollMm: strip.roll.width, cuttableMm: tidy(strip.cuttable), lengthMm: tidy(strip.length) },
        recipe,
        cutMm: tidy(program.cutLength),
        travelMm: tidy(program.travelLength),
        seconds: tidy(program.seconds, 1),
      };
    }),
    totals: {
      filmLengthMm: tidy(totals.filmLength),
      filmAreaMm2: tidy(totals.filmArea),
      seconds: tidy(totals.seconds, 1),
      swaps: totals.swaps,
    },
    findings,
  };
}
