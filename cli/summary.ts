import { rounded } from '../core/units/rounded';
import { largest } from '../core/geometry/lists';
import { componentsOf } from '../core/geometry/nesting';
import type { Plan } from '../core/plan/plan';

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
        copies: strip.placements.length,
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
    totals: {
      filmLengthMm: rounded(totals.filmLength),
      filmAreaMm2: rounded(totals.filmArea),
      seconds: rounded(totals.seconds, 1),
      swaps: totals.swaps,
    },
    findings,
  };
}
