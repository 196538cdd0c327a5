/** A plan put together: its totals, and all that was found, each with the section of the run card that it belongs to. */
import type { Ignored } from '../artwork/choices';
import { isSame } from '../artwork/choices';
import type { PreparedArtwork } from '../artwork/prepare';
import type { Roll } from '../films/film';
import type { Separation } from '../films/separate';
import type { Finding, FindingStage } from '../findings/finding';
import type { Cutter } from '../layout/cutter';
import type { Panelling } from '../panels/seams';
import type { Choices } from './choices';
import type { FilmCut, Plan, PlannedCut, PrintPlan } from './planned';
import { allCuts, NOTHING_PRINTED } from './planned';

export const from = (stage: FindingStage, findings: readonly Finding[]): Finding[] =>
  findings.map((finding) => ({ ...finding, stage }));

export function assemble(
  prepared: PreparedArtwork,
  separation: Separation,
  cutter: Cutter | undefined,
  cut:
    | {
        readonly seams: Panelling | undefined;
        readonly made: readonly FilmCut[];
        readonly onPaper: PrintPlan;
      }
    | undefined,
  findings: readonly Finding[],
  { artwork: { ignored } }: Choices,
): Plan {
  const { seams, made = [], onPaper: { printed, panels } = NOTHING_PRINTED } = cut ?? {};
  const cuts = made.flatMap((film) => film.cuts);
  const all = allCuts({ cuts, printed });
  const sum = (of: (cut: PlannedCut) => number): number => all.reduce((total, cut) => total + of(cut), 0);
  const found = [
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
    panels: [...made.flatMap((film) => film.panels), ...panels],
    cuts,
    printed,
    totals: {
      filmLength: sum((cut) => cut.strip.length),
      filmArea: sum((cut) => cut.strip.area),
      seconds: sum((cut) => cut.program.seconds),
      swaps: swapsIn(all),
    },
    findings: leave(withNothing(found, all), ignored),
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
  // what is cut with another order is cut
  const isCut = cuts.length > 0 || findings.some(({ code }) => code === 'cut-with');
  if (isCut || findings.some(({ severity }) => severity === 'stop')) return findings;
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
export function leave(findings: readonly Finding[], ignored: readonly Ignored[]): Finding[] {
  if (ignored.length === 0) return [...findings];
  return findings.map((finding) => {
    const { key } = finding;
    const reason = key === undefined ? undefined : ignored.find((left) => isSame(left.key, key))?.reason;
    if (reason === undefined || finding.severity === 'stop') return finding;
    return { ...finding, severity: 'note', ignored: reason };
  });
}
