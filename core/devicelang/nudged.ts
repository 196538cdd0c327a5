/** Force and speed that were changed while a cut runs: what a program says of them is said otherwise from then on. */
import type { LineKind } from '../artwork/choices';
import type { Recipe } from '../layout/cutter';

/** What a kind of line is cut with instead, g and cm/s; missing: as its recipe says. */
export interface Nudge {
  readonly force?: number;
  readonly speed?: number;
}
export type Nudges = Readonly<Partial<Record<LineKind, Nudge>>>;

/** What a kind of line was written with. */
export type WrittenWith = Pick<Recipe, 'force' | 'speed'>;

interface Told {
  readonly force?: number;
  readonly speed?: number;
}

const SETTING = /(VS|FS)(\d+(?:\.\d+)?);/g;
/** cm/s: an HP 7475A's slowest but nought. */
const SLOWEST = 1;

/**
 * Says bytes of a program as they are nudged by then. What is sent, and in which order, goes through one of these.
 * @param writtenWith what the program was written with, by kind of line
 * @returns takes one line's bytes, or part of them, and gives what is sent instead; told again before a line only when it
 *   would go by something else
 */
export function nudger(
  writtenWith: Readonly<Partial<Record<LineKind, WrittenWith>>>,
): (text: string, kind: LineKind, nudges: Nudges) => string {
  let written: Told = {};
  let sent: Told = {};
  return (text, kind, nudges) => {
    const as = (told: Told): Told => nudgedAs(told, writtenWith[kind], nudges[kind]);
    const again = saysItself(text) ? '' : difference(sent, as(written));
    const said = text.replace(SETTING, (_, code: string, digits: string) => {
      const value = Number(digits);
      written = code === 'VS' ? { ...written, speed: value } : { ...written, force: value };
      return code === 'VS' ? `VS${as({ speed: value }).speed};` : `FS${as({ force: value }).force};`;
    });
    sent = as(written);
    return again + said;
  };
}

/** It begins with a tool and how that is used. */
const saysItself = (text: string): boolean => /^(IN;)?(PA;)?SP/.test(text);

/** Slower curves stay as much slower as they were. */
function nudgedAs(told: Told, { speed: base = null }: Partial<WrittenWith> = {}, nudge: Nudge = {}): Told {
  const { force, speed } = told;
  const slower = (to: number, from: number): number =>
    base === null || from === base ? to : Math.max(SLOWEST, Math.round((from * to) / base));
  return {
    ...(force !== undefined && { force: nudge.force ?? force }),
    ...(speed !== undefined && { speed: nudge.speed === undefined ? speed : slower(nudge.speed, speed) }),
  };
}

const difference = (from: Told, to: Told): string =>
  [
    ...(to.speed !== from.speed ? [`VS${to.speed};`] : []),
    ...(to.force !== from.force ? [`FS${to.force};`] : []),
  ].join('');
