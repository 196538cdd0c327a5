/** Heavy work, run in the pool's threads so that no request waits behind it. */
import type { Roll } from '../../core/films/film';
import { besideStrip } from '../../core/weeding/beside';
import { rounded } from '../../core/units/rounded';
import type { MessagePort } from 'node:worker_threads';
import { Resvg } from '@resvg/resvg-js';
import type { HpglChunks } from '../../core/devicelang/writeHpgl';
import { hpglBytes, writeHpgl } from '../../core/devicelang/writeHpgl';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import { ontoStrip } from '../../core/plan/sheetStrip';
import { judgeSheet, USUAL_LIMITS } from '../../core/registration/verdict';
import { ontoSheet } from '../../core/toolpath/ontoSheet';
import type { CutProgram } from '../../core/toolpath/program';
import type { Artwork } from '../../core/readers/artwork';
import type { TextSource } from '../../core/artwork/choices';
import { applySheet, markHint, TAPING } from '../../core/films/applying';
import type { Share } from '../../core/layout/shares';
import { sharesOf } from '../../core/layout/shares';
import { copiesOn } from '../../core/layout/strip';
import { benchHints } from '../../core/plan/bench';
import { regionToPathData } from '../../core/geometry/pathText';
import { mapRegion } from '../../core/geometry/region';
import type { Region } from '../../core/geometry/region';
import type { Placing } from '../../core/plan/placing';
import { placingOf } from '../../core/plan/placing';
import { simplify } from '../../core/geometry/simplify';
import { deviationOf } from '../../core/swivel/deviation';
import type { Choices } from '../../core/plan/choices';
import type { Plan, PlannedCut } from '../../core/plan/planned';
import type { Shop } from '../../core/plan/shop';
import { createPlanner, planAndCheck } from '../../core/plan/plan';
import { faceSvg } from '../../core/plan/faceSvg';
import { stripSvg } from '../../core/plan/stripSvg';
import type { CutRecord, Drawing } from '../../contracts/cuts';
import type { CutSheet, ReadSheet, SheetFile } from '../../contracts/print';
import type { OrderSummary } from '../../contracts/api';
import type { ApplyPage } from '../../contracts/bench';
import type { Finding } from '../../core/findings/finding';
import { mapped } from '../../core/geometry/matrix';
import { followedOn } from '../../core/toolpath/followed';
import type { Recipe } from '../../core/layout/cutter';
import type { Strip } from '../../core/layout/strip';
import type { Again, PanelsAgain } from '../../core/films/again';
import type { Film } from '../../core/films/film';
import { FileProblem } from '../files/fileProblem';
import type { Reading } from '../files/readFile';
import { kindOf, readFile, readFirst } from '../files/readFile';
import type { MapPage } from '../../contracts/bench';
import type { Datum, FittingMap } from '../../core/panels/fittingMap';
import { fittingMap } from '../../core/panels/fittingMap';
import { mapPaper } from '../files/mapPaper';
import type { PaperKind, PlacingOf } from '../files/papers';
import type { PaperOrder } from '../files/sheet';
import { paper } from '../files/papers';
import { MM_PER_INCH } from '../../core/units/length';
import { needsPatch } from '../../core/print/marks';
import { sheetLabel } from '../../core/print/sheets';
import { printPdf } from '../files/printPdf';
import { printSvg, sheetDxf, sheetSvg } from '../files/sheetFiles';
import { pictureForPage, sizeOfPicture } from '../files/readPicture';
import { inspectFont, setText } from '../files/setText';

export interface PlanTask {
  /** By source key. */
  readonly artworks: ReadonlyMap<string, Artwork>;
  readonly choices: Choices;
  readonly shop: Shop;
  /** As it is written on panels. */
  readonly orderNumber?: number;
  /** Only these pieces. */
  readonly again?: Again | PanelsAgain;
  /** Orders that its films are cut with, each as it is planned: asked for only where their strips are shown. */
  readonly hosts?: readonly { readonly film: string; readonly task: PlanTask }[];
}

/** A cut with its bytes, ready to be stored. */
export interface MadeCut {
  readonly cutterId: string;
  /** The strip's id. */
  readonly strip: string;
  readonly film: Film;
  readonly recipe: Recipe;
  readonly mirrored: boolean;
  readonly copies: number;
  readonly rollWidth: number;
  readonly cuttable: number;
  readonly edges: Strip['edges'];
  readonly roll: Roll;
  readonly beside: number;
  /** Whose it is. */
  readonly shares: readonly Share[];
  readonly length: number;
  readonly cutLength: number;
  readonly seconds: number;
  readonly program: StoredProgram;
  readonly drawing: Drawing;
  /** Of a printed sheet: what is read of it, and its cut before it is known how it lies. */
  readonly sheet?: CutSheet;
  readonly design?: SheetDesign;
}

/** The cut of a printed sheet as designed, mm on the strip of a sheet that lies straight; plain lists, to be stored. */
export interface SheetDesign {
  readonly lines: readonly (Omit<CutProgram['lines'][number], 'points'> & {
    readonly points: readonly number[];
  })[];
  readonly recipes: CutProgram['recipes'];
  readonly length: number;
  readonly doneAt: readonly number[];
}

export interface StoredProgram {
  readonly head: string;
  readonly lines: readonly string[];
  readonly tail: string;
  /** Seconds from the start until each line is done. */
  readonly doneAt: readonly number[];
}

export interface MadePlan {
  readonly summary: OrderSummary;
  readonly findings: readonly Finding[];
  readonly cuts: readonly MadeCut[];
}

const planner = createPlanner();

const planOf = ({ artworks, choices, shop, again, orderNumber }: PlanTask): Plan =>
  planner.plan(artworks, choices, shop, { again, order: orderNumber });

/** Where pieces of an order's films sit on its sign, be they cut with it or with another. */
function placingIn(plan: Plan, { hosts = [], orderNumber }: PlanTask): PlacingOf {
  const others = new Map(hosts.map(({ film, task }) => [film, planOf(task)]));
  return (film) => {
    const host = others.get(film);
    return host ? placingOf(host.cuts, film, orderNumber) : placingOf(plan.cuts, film);
  };
}

/** A problem with a file is an answer, not a crash of the thread. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly code: string; readonly message: string };

async function answer<T>(work: () => Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    if (!(error instanceof FileProblem)) throw error;
    return { ok: false, code: error.code, message: error.message };
  }
}

/** Reads a file that has just come in, and says how; its shares come over `port` on the way. */
export const takeIn = ({
  bytes,
  port,
}: {
  bytes: Uint8Array;
  port?: MessagePort;
}): Promise<Answer<{ artwork: Artwork; reading: Reading }>> =>
  answer(() => readFirst(bytes, (share) => port?.postMessage(share)));

/** Reads a file as a person chose. */
export const read = ({ bytes, reading }: { bytes: Uint8Array; reading: Reading }): Promise<Answer<Artwork>> =>
  answer(() => readFile(bytes, reading));

/** Sets text; `font` is the file of a typeface that the shop brought. */
export const typeset = ({
  source,
  font,
}: {
  source: TextSource;
  font?: Uint8Array;
}): Promise<Answer<Artwork>> => answer(() => setText(source, font));

export const lookAtFont = (bytes: Uint8Array) => answer(() => inspectFont(bytes));

/** How many pixels a picture has, as it is seen. */
export const measurePicture = (bytes: Uint8Array) =>
  answer(() => {
    if (kindOf(bytes) !== 'picture')
      throw new FileProblem(
        'no-picture',
        'That file is no picture. A photograph as JPEG, PNG or WebP will do.',
      );
    return sizeOfPicture(bytes);
  });

export const showPicture = ({ bytes, width }: { bytes: Uint8Array; width: number }) =>
  answer(() => pictureForPage(bytes, width));

/** What an order's row shows. */
export function summarise(task: PlanTask): { summary: OrderSummary; thumbnail: Uint8Array } {
  const plan = planAndCheck(planner, task.artworks, task.choices, task.shop);
  return { summary: summaryOf(plan), thumbnail: thumbnailOf(plan) };
}

const THUMBNAIL = 480;

/** The sign in its films' colours; empty when there is nothing to see. */
function thumbnailOf(plan: Plan): Uint8Array {
  const { width, height } = plan.prepared;
  const isEmpty = plan.separation.films.length === 0 && !plan.printed;
  if (isEmpty || !(width > 0) || !(height > 0)) return new Uint8Array();
  const value = width >= height ? THUMBNAIL : Math.max(1, Math.round((THUMBNAIL * width) / height));
  return new Resvg(faceSvg(plan), { font: { loadSystemFonts: false }, fitTo: { mode: 'width', value } })
    .render()
    .asPng();
}

function summaryOf(plan: Plan): OrderSummary {
  const { width, height } = plan.prepared;
  return {
    width,
    height,
    films: plan.separation.films.map(({ film: { id, name, colour } }) => ({ id, name, colour })),
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
    cuts: [...plan.cuts.map(madeCut), ...madeSheets(plan.printed, task.choices.print.marks.line)],
  };
}

/** Sheets in their order; what is read of each goes with it. */
const madeSheets = (printed: Plan['printed'], line: number): MadeCut[] =>
  (printed?.sheets ?? []).map(({ sheet, cut }, i, all) => {
    const onto = ontoStrip({ widest: cut.cutter.widest, margins: cut.cutter.margins });
    const marks = sheet.marks.map(({ kind, at, arms }) => ({ kind, at: onto(at), arms }));
    const { lines, recipes, length, doneAt } = cut.program;
    return {
      ...madeCut(cut),
      sheet: { number: i + 1, of: all.length, width: sheet.width, height: sheet.height, line, marks },
      design: {
        lines: lines.map((one) => ({ ...one, points: Array.from(one.points) })),
        recipes,
        length,
        doneAt: Array.from(doneAt),
      },
    };
  });

interface RegisterTask {
  readonly sheet: CutSheet;
  readonly design: SheetDesign;
  readonly drawing: Drawing;
  readonly cuttable: number;
  readonly cutter: Cutter;
  /** Marks as they were read, mm on the strip: which, from 0, and where. */
  readonly taken: readonly { readonly mark: number; readonly at: Spot }[];
  readonly isByHand: boolean;
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
  cutter,
  taken,
  isByHand,
}: RegisterTask): Registered {
  const designed = taken.map(({ mark }) => sheet.marks[mark].at);
  const measured = taken.map(({ at }) => at);
  const noise = isByHand ? HAND_NOISE : (cutter.sensor?.noise ?? HAND_NOISE);
  const { fit, lies, findings } = judgeSheet(designed, measured, noise);
  if (!fit) return { fit: null, off: measured.map(() => [0, 0]), findings };
  const { model, rotation, scaleX, scaleY, skew, bow, worst } = fit;
  const told = { model, rotation, scaleX, scaleY, skew, bow, worst, limit: USUAL_LIMITS.residual };
  const known = { fit: { ...told, isTurned: lies === 'turned' }, off: fit.residuals, findings };
  if (findings.some(({ severity }) => severity === 'stop')) return known;
  const straight = {
    ...design,
    lines: design.lines.map((line) => ({ ...line, points: Float64Array.from(line.points) })),
  };
  const { device } = cutter;
  const program = ontoSheet({ ...straight, cutLength: 0, travelLength: 0, seconds: 0, doneAt: Float64Array.from(design.doneAt) }, fit.map, device.step); // prettier-ignore
  const bent = (points: readonly number[]): number[] =>
    points.flatMap((_, i) => (i % 2 === 0 ? [...fit.map([points[i], points[i + 1]])] : []));
  return {
    ...known,
    moved: {
      program: storedProgram(writeHpgl(program, device, cuttable), Array.from(program.doneAt)),
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

/** mm: how well a person puts a pointer onto a mark (our own). */
const HAND_NOISE = 0.1;

const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
const storedProgram = (chunks: HpglChunks, doneAt: readonly number[]): StoredProgram => ({
  head: text(chunks.head),
  lines: chunks.lines.map(text),
  tail: text(chunks.tail),
  doneAt,
});

function madeCut({ strip, cutter, recipe, program }: PlannedCut): MadeCut {
  const chunks = writeHpgl(program, cutter.device, strip.cuttable);
  const design = strip.placements.flatMap((p) => mapRegion(p.part.region, p.matrix));
  return {
    cutterId: cutter.id,
    strip: strip.id,
    film: strip.film,
    recipe,
    mirrored: strip.mirrored,
    copies: copiesOn(strip),
    rollWidth: strip.roll.width,
    cuttable: strip.cuttable,
    edges: strip.edges,
    length: strip.length,
    roll: strip.roll,
    beside: besideStrip(strip),
    shares: sharesOf(strip),
    cutLength: program.cutLength,
    seconds: program.seconds,
    program: storedProgram(chunks, Array.from(program.doneAt)),
    drawing: {
      design: design.map((ring) => Array.from(ring)),
      followed: strip.placements.flatMap(({ part, matrix }) =>
        // what the cutter has no tool for is left out, and told
        followedOn(part, cutter.device.tools ?? 1).map(({ points, closed, kind }) => ({
          points: Array.from(mapped(points, matrix)),
          closed,
          dashed: kind === 'perforated',
        })),
      ),
      parts: program.lines.map((line) => line.part),
      lines: program.lines.map((line) => Array.from(line.points, (v) => rounded(v))),
    },
  };
}

/** One strip of a plan as a file; undefined when the plan has no such strip. */
export function download(
  task: PlanTask & { readonly stripId: string; readonly kind: 'plt' | 'svg' },
): Uint8Array | undefined {
  const plan = planOf(task);
  const cut = plan.cuts.find(({ strip }) => strip.id === task.stripId);
  if (!cut) return undefined;
  if (task.kind === 'svg') return Buffer.from(stripSvg(cut.strip));
  return hpglBytes(writeHpgl(cut.program, cut.cutter.device, cut.strip.cuttable));
}

/** A printed sheet as a file: what is printed as PDF or picture, what is cut as drawing or HP-GL. */
interface SheetTask extends PlanTask {
  readonly sheetId: string;
  readonly kind: SheetFile;
  readonly orderNumber: number;
  /** Cut lines are in the PDF too. */
  readonly withLines: boolean;
  /** Dots an inch of the picture. */
  readonly dpi: number;
}

/** px: a picture is no wider or higher, whatever is asked. */
const MOST_PIXELS = 16_000;

/** @returns undefined: the plan has no such sheet */
export async function sheetFile(task: SheetTask): Promise<Uint8Array | undefined> {
  const { printed } = planOf(task);
  const i = printed?.sheets.findIndex(({ sheet }) => sheet.id === task.sheetId) ?? -1;
  if (!printed || i < 0) return undefined;
  const { unit, film, sheets } = printed;
  const { sheet, cut } = sheets[i];
  const label = sheetLabel(`#${task.orderNumber}`, i, sheets.length);
  const { marks, patch } = task.choices.print;
  switch (task.kind) {
    case 'pdf':
      return printPdf(unit, sheet, label, {
        marks,
        withLines: task.withLines,
        patch: needsPatch(film, patch),
      });
    case 'png': {
      const most = MOST_PIXELS * Math.min(1, sheet.width / sheet.height);
      const value = Math.max(1, Math.round(Math.min((sheet.width / MM_PER_INCH) * task.dpi, most)));
      const svg = printSvg(unit, sheet, marks.line, label.code);
      return new Resvg(svg, { font: { loadSystemFonts: false }, fitTo: { mode: 'width', value } })
        .render()
        .asPng();
    }
    case 'svg':
      return Buffer.from(sheetSvg(unit, sheet));
    case 'dxf':
      return Buffer.from(sheetDxf(unit, sheet));
    case 'plt':
      return hpglBytes(writeHpgl(cut.program, cut.cutter.device, cut.strip.cuttable));
  }
}

/** One of an order's papers. */
export function print(
  task: PlanTask & { readonly kind: PaperKind; readonly order: PaperOrder },
): Promise<Uint8Array> {
  const plan = planOf(task);
  return paper(task.kind, plan, task.order, task.choices, placingIn(plan, task));
}

/** Path data of what is only looked at. @param detail mm that it may be off */
const roughPath = (region: Region, detail: number): string =>
  regionToPathData(region.map((points) => simplify({ points, closed: true }, detail).points));

const placingPage = (placing: Placing | undefined, detail: number) =>
  placing && {
    box: placing.box,
    sign: placing.sign,
    strips: placing.strips.map(({ region, others, ...strip }) => ({
      ...strip,
      outline: roughPath(region, detail),
      others: roughPath(others, detail),
    })),
  };

/** The application sheet as a page shows it. */
export function apply(task: PlanTask): ApplyPage {
  const plan = planOf(task);
  const { prepared, separation } = plan;
  const { width, height, view, steps, marks } = applySheet(
    prepared,
    separation,
    task.choices.films.marks?.shape,
  );
  const detail = Math.max(view.maxX - view.minX, view.maxY - view.minY) / 2000;
  const placing = placingIn(plan, task);
  return {
    width,
    height,
    view,
    marks: marks && markHint(marks),
    taping: TAPING,
    steps: steps.map((step) => {
      const places = placing(step.film.id);
      return {
        film: { name: step.film.name, code: step.film.code, colour: step.film.colour },
        outline: roughPath(step.region, detail),
        hints: benchHints(plan, task.choices, step, places),
        placing: placingPage(places, detail),
      };
    }),
  };
}

type MapTask = PlanTask & { readonly datum: Datum };

/** Where the panels of an order go; null: nothing of it is in panels. */
const mapOf = (plan: Plan, { choices, datum }: MapTask): FittingMap | null =>
  plan.panelling ? fittingMap(plan.panelling, plan.panels, choices.panels, plan.prepared, datum) : null;

/** The fitting map as a page shows it. */
export function fit(task: MapTask): MapPage | null {
  const plan = planOf(task);
  const map = mapOf(plan, task);
  if (!map) return null;
  const detail = Math.max(map.width, map.height) / 2000;
  const outlines = plan.separation.films.map(({ film, region }) => ({
    colour: film.colour,
    outline: roughPath(region, detail),
  }));
  return { ...map, outlines };
}

/** The fitting map on paper. */
export async function printMap(task: MapTask & { readonly order: PaperOrder }): Promise<Uint8Array | null> {
  const plan = planOf(task);
  const map = mapOf(plan, task);
  return map && mapPaper(map, plan.separation.films, task.order);
}

/** How far the knife's recorded way lies from the design; the aligning stroke and weed borders do not count. */
export function compare({ record, drawing }: { readonly record: CutRecord; readonly drawing: Drawing }) {
  const cut = record.lines
    .filter((_, i) => drawing.parts[i] === 'art' || drawing.parts[i] === 'waste')
    .map((line) => Float64Array.from(line.points));
  const design = drawing.design.map((ring) => Float64Array.from(ring));
  return deviationOf(cut, design, drawing.followed);
}
