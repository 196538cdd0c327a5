/** How a printed sheet lies in a cutter, from marks in a file: no screen, no database. */
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import type { Spot } from '../core/geometry/spot';
import { USUAL_DISTORTION } from '../core/registration/distortion';
import { fitSheet } from '../core/registration/fit';
import type { SheetFit } from '../core/registration/fit';
import { judgeSheet, USUAL_LIMITS, worstWithin95 } from '../core/registration/verdict';
import { rounded } from '../core/units/rounded';
import type { Says } from './run';

const USAGE = `Usage: npm run fit -- marks.json
  marks.json: { "marks": [{ "designed": [x, y], "measured": [x, y] }, …], "noise": 0.02, "limits": { "residual": 0.3, "scale": 0.01, "rotation": 5, "skew": 0.5 }, "usual": { "bow": 0.5, … }, "at": [[x, y], …] }, all in mm and degrees; only marks are needed
  usual: how much such sheets are distorted, standard deviations, for what the marks cannot measure: stretch (share, 0.004),
  skew (radians, 0.004), bow (mm, 0.5), unevenBow (mm, 0.25), aslant (mm, 0.4)
  In the answer, expectedMm is the root mean square error of a place, within95Mm what 95 of 100 sheets stay within.
Ends with 0 when the sheet may be cut as it lies, 1 when not, 2 when the file cannot be read.`;

const mm = z.number().min(-100_000).max(100_000);
const spot = z.tuple([mm, mm]);
const positive = z.number().positive().max(1000);
const deviation = z.number().positive().max(100);
const marksFile = z.strictObject({
  marks: z
    .array(z.strictObject({ designed: spot, measured: spot }))
    .min(2)
    .max(1000),
  /** Standard deviation of one reading. */
  noise: z.number().min(0.001).max(10).default(0.02),
  limits: z
    .strictObject({ residual: positive, scale: positive, rotation: positive, skew: positive })
    .partial()
    .default({}),
  usual: z
    .strictObject({
      stretch: deviation,
      skew: deviation,
      bow: deviation,
      unevenBow: deviation,
      aslant: deviation,
    })
    .partial()
    .default({}),
  /** Places that are wanted. */
  at: z.array(spot).max(100_000).default([]),
});

/** @returns the exit code */
export async function runFit(args: readonly string[], says: Says): Promise<number> {
  const [path, ...others] = args;
  if (path === undefined || others.length > 0) return refused(says, USAGE);
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch {
    return refused(says, `There is no file ${path}.\n${USAGE}`);
  }
  const parsed = marksFile.safeParse(jsonIn(text));
  if (!parsed.success) {
    const [{ path: field, message }] = parsed.error.issues;
    return refused(says, `${path}: ${field.join('.') || 'it'}: ${message}.\n${USAGE}`);
  }
  const { marks, noise, limits, at } = parsed.data;
  const usual = { ...USUAL_DISTORTION, ...parsed.data.usual };
  const [designed, measured] = [marks.map((one) => one.designed), marks.map((one) => one.measured)];
  const { lies, fit, findings } = judgeSheet(
    designed,
    measured,
    noise,
    { ...USUAL_LIMITS, ...limits },
    usual,
  );
  // even marks of another sheet are shown as they would fit
  const shown = fit ?? fitSheet(marks, noise, usual);
  const said = findings.map(({ severity, code, message, waysOut }) => ({ severity, code, message, waysOut }));
  const isRefused = findings.some(({ severity }) => severity === 'stop');
  says.log(
    JSON.stringify(
      { lies: lies ?? null, ...(shown && summary(shown, designed, at)), findings: said, refused: isRefused },
      null,
      2,
    ),
  );
  return isRefused ? 1 : 0;
}

function refused(says: Says, why: string): number {
  says.error(why);
  return 2;
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

const DIGITS = 6;
const short = (value: number): number => rounded(value, DIGITS);
const place = ([x, y]: Spot): Spot => [short(x), short(y)];

function summary(fit: SheetFit, designed: readonly Spot[], at: readonly Spot[]) {
  const { model, map, bow, rotation, scaleX, scaleY, skew, isMirrored } = fit;
  return {
    model,
    parameters: {
      rotationDeg: short(rotation),
      scaleX: short(scaleX),
      scaleY: short(scaleY),
      skewDeg: short(skew),
      bowMm: short(bow),
      mirrored: isMirrored,
      origin: place(map([0, 0])),
    },
    residualsMm: fit.residuals.map(place),
    worstMm: short(fit.worst),
    expectedMm: designed.map((mark) => short(fit.expectedAt(mark))),
    within95Mm: designed.map((mark) => short(fit.within95At(mark))),
    worstWithin95Mm: short(worstWithin95(fit, designed)),
    notMeasured: fit.unmeasured,
    isExplained: fit.isExplained,
    tried: fit.tried.map(({ rms, chance, ...one }) => ({
      ...one,
      rmsMm: short(rms),
      chance: chance === undefined ? null : short(chance),
    })),
    at: at.map((one) => ({
      designed: one,
      lies: place(map(one)),
      expectedMm: short(fit.expectedAt(one)),
      within95Mm: short(fit.within95At(one)),
    })),
  };
}
