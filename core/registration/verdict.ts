/** Whether a sheet may be cut as it lies. */
import type { Finding } from '../findings/finding';
import { emptyBounds, growBounds } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import { formatLength } from '../units/length';
import type { Distortion, DistortionName } from './distortion';
import { USUAL_DISTORTION } from './distortion';
import type { SheetFit } from './fit';
import { fitSheet } from './fit';
import type { Lies } from './recognise';
import { recognise } from './recognise';

/** What a cutter bears. */
export interface FitLimits {
  /** mm that a mark may lie off what is expected of it */
  readonly residual: number;
  /** Share by which lengths may differ from the design's. */
  readonly scale: number;
  /** Degrees that the sheet may lie aslant. */
  readonly rotation: number;
  /** Degrees by which its corners may differ from right ones. */
  readonly skew: number;
}

/** Ordinary limits (common practice, no source). */
export const USUAL_LIMITS: FitLimits = { residual: 0.3, scale: 0.01, rotation: 5, skew: 0.5 };

/** A sheet as it lies; without a fit its marks are not its own, or do not tell. */
export interface SheetVerdict {
  readonly lies: Lies | undefined;
  readonly fit: SheetFit | undefined;
  readonly findings: readonly Finding[];
}

/** Marks that lie further off than so many limits are no marks of this sheet. */
const ANOTHER_SHEET = 12;

/**
 * @param designed marks in the order in which they are read, mm on the sheet
 * @param measured the same as they were read, mm in the cutter
 * @param noise standard deviation of one reading in x or in y, mm
 * @param usual how much sheets of this printer and cutter are distorted
 */
export function judgeSheet(
  designed: readonly Spot[],
  measured: readonly Spot[],
  noise: number,
  limits: FitLimits = USUAL_LIMITS,
  usual: Distortion = USUAL_DISTORTION,
): SheetVerdict {
  const known = recognise(designed, measured, ANOTHER_SHEET * limits.residual);
  const fit = known && fitSheet(known.readings, noise, usual);
  if (!known || !fit) return { lies: undefined, fit: undefined, findings: [anotherSheet] };
  const isTurned = Math.abs(fit.rotation) > 90;
  const aslant = isTurned ? halfTurnOff(fit.rotation) : fit.rotation;
  const scales = [fit.scaleX, fit.scaleY];
  const worstScale = scales.reduce((worst, one) => (Math.abs(one - 1) > Math.abs(worst - 1) ? one : worst));
  const findings = [
    ...(known.lies === 'mirrored' || fit.isMirrored ? [mirrored] : []),
    ...(isTurned && !fit.isMirrored ? [turned] : []),
    ...(known.lies === 'swapped' ? [swapped] : []),
    ...(Math.abs(worstScale - 1) > limits.scale ? [rescaled(worstScale, limits.scale)] : []),
    ...(Math.abs(aslant) > limits.rotation ? [tooAslant(aslant, limits.rotation)] : []),
    ...(Math.abs(fit.skew) > limits.skew ? [skewed(fit.skew, limits.skew)] : []),
    ...(fit.worst > limits.residual ? [markOff(fit, limits.residual)] : []),
    ...(fit.isExplained || fit.worst > limits.residual ? [] : [unexplained(fit)]),
    ...notMeasured(fit, designed, limits.residual),
  ];
  return { lies: isTurned && known.lies === 'as-designed' ? 'turned' : known.lies, fit, findings };
}

/** Places in each direction at which a sheet's error is looked at. */
const PLACES = 9;

/** mm that places between the marks lie off at most, on 95 of 100 sheets. */
export function worstWithin95(
  { within95At }: Pick<SheetFit, 'within95At'>,
  designed: readonly Spot[],
): number {
  const { minX, minY, maxX, maxY } = growBounds(emptyBounds(), designed.flat());
  const share = (i: number): number => i / (PLACES - 1);
  const each = Array.from({ length: PLACES }, (_, i) => share(i));
  return largest(
    each.flatMap((u) => each.map((v) => within95At([minX + u * (maxX - minX), minY + v * (maxY - minY)]))),
  );
}

/** Distortions in words, as what marks cannot measure. */
const WORDS: Readonly<Record<DistortionName, string>> = {
  stretch: 'stretch across',
  skew: 'skew',
  bow: 'bow',
  unevenBow: 'bow that differs from edge to edge',
  aslant: 'a sheet seen aslant',
};
/** Distortions that ordinary sheets have. */
const COMMON: ReadonlySet<DistortionName> = new Set(['stretch', 'skew', 'bow']);
const COUNTS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'];

/**
 * Ordinary distortions that marks at these places could not measure, reported before the sheet is printed.
 * @param noise standard deviation of one reading in x or in y, mm
 */
export function unmeasurable(designed: readonly Spot[], noise: number): Finding[] {
  const fit = fitSheet(
    designed.map((at) => ({ designed: at, measured: at })),
    noise,
  );
  const isOrdinary = fit?.unmeasured.some((name) => COMMON.has(name));
  return fit && isOrdinary ? notMeasured(fit, designed, USUAL_LIMITS.residual) : [];
}

function notMeasured(fit: SheetFit, designed: readonly Spot[], limit: number): Finding[] {
  const names = fit.unmeasured.map((name) => WORDS[name]);
  const within = worstWithin95(fit, designed);
  // a small rest that cannot be told apart is nobody's concern
  if (names.length === 0 || (within <= limit && !fit.unmeasured.includes('bow'))) return [];
  const all = names.length === 1 ? names[0] : `${names.slice(0, -1).join(', ')} or ${names.at(-1)}`;
  const count = COUNTS[designed.length] ?? String(designed.length);
  return [
    {
      code: 'not-measured',
      severity: within > limit && fit.unmeasured.some((name) => COMMON.has(name)) ? 'check' : 'note',
      message: `${count} marks cannot measure ${all}: places between them may lie up to ${formatLength(within, 'mm', true)} off (95 of 100 sheets stay within that).`,
      waysOut: ['Print marks in between the corners', 'Read more of its marks'],
      measured: within,
      limit,
    },
  ];
}

const halfTurnOff = (rotation: number): number => rotation - Math.sign(rotation) * 180;

const anotherSheet: Finding = {
  code: 'another-sheet',
  severity: 'stop',
  message: 'These are not the marks of this sheet, whichever way it lies.',
  waysOut: [
    'Load the sheet that was printed for this cut',
    'Read the marks again: one may have been taken for another',
  ],
};
const mirrored: Finding = {
  code: 'sheet-mirrored',
  severity: 'stop',
  message: 'The sheet lies face down, or was printed mirrored.',
  waysOut: ['Turn it over', 'Print it again, not mirrored'],
};
const turned: Finding = {
  code: 'sheet-turned',
  severity: 'note',
  message: 'The sheet lies the other way round; the cut is turned with it.',
};
const swapped: Finding = {
  code: 'marks-swapped',
  severity: 'note',
  message: 'The marks were read in another order; they are taken for what they are.',
};
const percent = (share: number): string => `${(100 * share).toFixed(2)} %`;
const rescaled = (scale: number, limit: number): Finding => ({
  code: 'sheet-rescaled',
  severity: 'stop',
  message: `The sheet was printed at ${percent(scale)} of its size; ${percent(limit)} off is the most.`,
  waysOut: ['Print it again at 100 %, without fitting it to the page'],
  measured: scale,
  limit,
});
const tooAslant = (degrees: number, limit: number): Finding => ({
  code: 'sheet-aslant',
  severity: 'stop',
  message: `The sheet lies ${Math.abs(degrees).toFixed(1)}° aslant; ${limit.toFixed(1)}° is the most.`,
  waysOut: ['Load it straighter and read the marks again'],
  measured: degrees,
  limit,
});
const skewed = (degrees: number, limit: number): Finding => ({
  code: 'sheet-skewed',
  severity: 'stop',
  message: `The corners of the sheet are ${Math.abs(degrees).toFixed(2)}° off a right angle; ${limit.toFixed(1)}° is the most.`,
  waysOut: ['Load it again without pulling at one side', 'Print it again'],
  measured: degrees,
  limit,
});

function markOff({ residuals, worst }: SheetFit, limit: number): Finding {
  const which = residuals.findIndex(([x, y]) => Math.hypot(x, y) === worst);
  return {
    code: 'mark-off',
    severity: 'stop',
    message: `Mark ${which + 1} lies ${formatLength(worst, 'mm', true)} off where the others put it; ${formatLength(limit, 'mm', true)} is the most.`,
    waysOut: [
      `Read mark ${which + 1} again: something may lie over it`,
      'Load the sheet again: it may have slipped',
    ],
    measured: worst,
    limit,
  };
}

const unexplained = ({ worst }: SheetFit): Finding => ({
  code: 'more-than-noise',
  severity: 'check',
  message: `Marks lie up to ${formatLength(worst, 'mm', true)} off, more than the sensor's own noise explains.`,
  waysOut: ['Read them once more', 'Print more marks between the corners'],
  measured: worst,
});
