/** Heavy work, run in the pool's threads so that no request waits behind it. */
import { hpglBytes, writeHpgl } from '../../core/devicelang/writeHpgl';
import type { Artwork } from '../../core/artwork/artwork';
import { mapRegion } from '../../core/geometry/region';
import { deviationOf } from '../../core/swivel/deviation';
import type { Choices, Plan, PlannedCut, Shop } from '../../core/plan/plan';
import { createPlanner } from '../../core/plan/plan';
import { stripSvg } from '../../core/plan/stripSvg';
import type { CutRecord, Drawing, OrderRow } from '../../contracts/api';
import type { Finding } from '../../core/findings/finding';
import type { Recipe } from '../../core/layout/cutter';
import type { Film } from '../../core/films/film';
import { FileProblem } from '../files/fileProblem';
import type { ReadFile } from '../files/readSvg';
import { readSvg } from '../files/readSvg';

export interface PlanTask {
  readonly key: string;
  readonly artwork: Artwork;
  readonly choices: Choices;
  readonly shop: Shop;
}

/** A cut with its bytes, ready to be stored. */
export interface MadeCut {
  readonly film: Film;
  readonly recipe: Recipe;
  readonly mirrored: boolean;
  readonly copies: number;
  readonly rollWidth: number;
  readonly cuttable: number;
  readonly rollerMargin: number;
  readonly length: number;
  readonly cutLength: number;
  readonly seconds: number;
  readonly program: StoredProgram;
  readonly drawing: Drawing;
}

export interface StoredProgram {
  readonly head: string;
  readonly lines: readonly string[];
  readonly tail: string;
  /** Seconds from the start until each line is done. */
  readonly doneAt: readonly number[];
}

export interface MadePlan {
  readonly summary: OrderRow['summary'];
  readonly findings: readonly Finding[];
  readonly cutterId: string | null;
  readonly cuts: readonly MadeCut[];
}

const planner = createPlanner();

const planOf = ({ key, artwork, choices, shop }: PlanTask): Plan => planner.plan(key, artwork, choices, shop);

export type ReadAnswer =
  | { readonly ok: true; readonly file: ReadFile }
  | { readonly ok: false; readonly code: string; readonly message: string };

/** Reads a customer's file; a problem with it is an answer, not a crash of the thread. */
export async function read(bytes: Uint8Array): Promise<ReadAnswer> {
  try {
    return { ok: true, file: await readSvg(bytes) };
  } catch (error) {
    if (!(error instanceof FileProblem)) throw error;
    return { ok: false, code: error.code, message: error.message };
  }
}

/** What an order's row shows. */
export function summarise(task: PlanTask): OrderRow['summary'] {
  return summaryOf(planOf(task));
}

function summaryOf(plan: Plan): OrderRow['summary'] {
  const { width, height } = plan.prepared;
  return {
    width,
    height,
    films: plan.separation.films.map(({ film }) => ({ name: film.name, colour: film.colour })),
    stops: plan.findings.filter((f) => f.severity === 'stop').length,
    checks: plan.findings.filter((f) => f.severity === 'check').length,
  };
}

/** Everything a queue entry needs. */
export function make(task: PlanTask): MadePlan {
  const plan = planOf(task);
  return {
    summary: summaryOf(plan),
    findings: plan.findings,
    cutterId: plan.cutter?.id ?? null,
    cuts: plan.cuts.map((cut) => madeCut(plan, cut)),
  };
}

function madeCut(plan: Plan, { strip, recipe, program }: PlannedCut): MadeCut {
  const chunks = writeHpgl(program, plan.cutter!.device, strip.cuttable);
  const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
  const design = strip.placements.flatMap((p) => mapRegion(strip.layer.region, p.matrix));
  return {
    film: strip.film,
    recipe,
    mirrored: strip.mirrored,
    copies: strip.placements.length,
    rollWidth: strip.rollWidth,
    cuttable: strip.cuttable,
    rollerMargin: strip.rollerMargin,
    length: strip.length,
    cutLength: program.cutLength,
    seconds: program.seconds,
    program: {
      head: text(chunks.head),
      lines: chunks.lines.map(text),
      tail: text(chunks.tail),
      doneAt: Array.from(program.doneAt),
    },
    drawing: {
      design: design.map((ring) => Array.from(ring)),
      parts: program.lines.map((line) => line.part),
      lines: program.lines.map((line) => Array.from(line.points, (v) => Math.round(v * 1000) / 1000)),
    },
  };
}

/** One film of a plan as a file; undefined when the plan has no such film. */
export function download(
  task: PlanTask & { readonly filmId: string; readonly kind: 'plt' | 'svg' },
): Uint8Array | undefined {
  const plan = planOf(task);
  const cut = plan.cuts.find(({ strip }) => strip.film.id === task.filmId);
  if (!cut) return undefined;
  if (task.kind === 'svg') return Buffer.from(stripSvg(cut.strip));
  return hpglBytes(writeHpgl(cut.program, plan.cutter!.device, cut.strip.cuttable));
}

/** How far the knife's recorded way lies from the design; the aligning stroke and weed borders do not count. */
export function compare({ record, drawing }: { readonly record: CutRecord; readonly drawing: Drawing }) {
  const cut = record.lines
    .filter((_, i) => drawing.parts[i] === 'art')
    .map((line) => Float64Array.from(line.points));
  const design = drawing.design.map((ring) => Float64Array.from(ring));
  return deviationOf(cut, design);
}
