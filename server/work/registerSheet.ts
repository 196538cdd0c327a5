/** Where a printed sheet lies by its marks, and its cut moved there. */
import type { CutSheet, ReadSheet } from '../../contracts/print';
import type { Drawing } from '../../contracts/cuts';
import { writeHpgl } from '../../core/devicelang/writeHpgl';
import type { Finding } from '../../core/findings/finding';
import type { Spot } from '../../core/geometry/spot';
import { placesMapped } from '../../core/geometry/spot';
import type { Device } from '../../core/layout/cutter';
import { stepsOf } from '../../core/layout/cutter';
import type { FitLimits } from '../../core/registration/verdict';
import type { Distortion } from '../../core/registration/distortion';
import { usualDistortion } from '../../core/registration/distortion';
import { judgeSheet, USUAL_LIMITS, worstWithin95 } from '../../core/registration/verdict';
import { ontoSheet } from '../../core/toolpath/ontoSheet';
import { rounded } from '../../core/units/rounded';
import type { SheetDesign, StoredProgram } from './makeCuts';
import { storedProgram } from './makeCuts';

interface RegisterTask {
  readonly sheet: CutSheet;
  readonly design: SheetDesign;
  readonly drawing: Drawing;
  readonly cuttable: number;
  readonly device: Device;
  /** Marks as they were read, mm on the strip: which, from 0, and where. */
  readonly taken: readonly { readonly mark: number; readonly at: Spot }[];
  /** mm: standard deviation of one reading */
  readonly noise: number;
  readonly limits?: FitLimits;
  /** What earlier sheets of this cutter showed of their distortion. */
  readonly earlier: readonly Partial<Distortion>[];
}

/** How a sheet lies by its marks, and its cut moved to where it does; without one it may not be cut. */
export interface Registered {
  readonly fit: ReadSheet['fit'];
  readonly off: readonly Spot[];
  readonly findings: readonly Finding[];
  readonly moved?: { readonly program: StoredProgram; readonly drawing: Drawing };
}

export function registerSheet({
  sheet,
  design,
  drawing,
  cuttable,
  device,
  taken,
  noise,
  limits = USUAL_LIMITS,
  earlier,
}: RegisterTask): Registered {
  const designed = taken.map(({ mark }) => sheet.marks[mark].at);
  const measured = taken.map(({ at }) => at);
  const { fit, lies, findings } = judgeSheet(designed, measured, noise, limits, usualDistortion(earlier));
  if (!fit) return { fit: null, off: measured.map(() => [0, 0]), findings };
  const { model, rotation, scaleX, scaleY, skew, bow, worst, distortion } = fit;
  const within95 = worstWithin95(fit, designed);
  const told = {
    model,
    rotation,
    scaleX,
    scaleY,
    skew,
    bow,
    worst,
    limit: limits.residual,
    within95,
    distortion,
  };
  const known = { fit: { ...told, isTurned: lies === 'turned' }, off: fit.residuals, findings };
  if (findings.some(({ severity }) => severity === 'stop')) return known;
  const straight = {
    ...design,
    lines: design.lines.map(({ speeds, ...line }) => ({
      ...line,
      points: Float64Array.from(line.points),
      ...(speeds && { speeds: Float64Array.from(speeds) }),
    })),
    doneAt: Float64Array.from(design.doneAt),
  };
  const program = ontoSheet(straight, fit.map, stepsOf(device));
  const bent = (points: readonly number[]): number[] => placesMapped(points, fit.map);
  return {
    ...known,
    moved: {
      program: storedProgram(writeHpgl(program, device, cuttable), program.doneAt, program.lines),
      drawing: {
        ...drawing,
        design: drawing.design.map(bent),
        followed: drawing.followed?.map((line) => ({ ...line, points: bent(line.points) })),
        parts: program.lines.map(({ part }) => part),
        lines: program.lines.map((line) => Array.from(line.points, (v) => rounded(v))),
      },
    },
  };
}
