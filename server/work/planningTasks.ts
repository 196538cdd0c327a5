/**
 * Planning, run in the pool's threads so that no request waits behind it. What draws PDFs is loaded where one is asked for: it takes
 * as long as all the rest.
 */
import type { MadeCut } from './makeCuts';
import { madeCut, madeSheets } from './makeCuts';
import type { OnSign, OnStrip } from './onSign';
import { onSignIn } from './onSign';
import type { SheetQuery } from '../../contracts/print';
import { Resvg } from '@resvg/resvg-js';
import { hpglBytes, writeHpgl } from '../../core/devicelang/writeHpgl';
import type { Artwork } from '../../core/readers/artwork';
import { applySheet, markHint, TAPING } from '../../core/films/applying';
import { offOf } from '../../core/films/leftover';
import { benchHints } from '../../core/plan/bench';
import { regionToPathData } from '../../core/geometry/pathText';
import type { Region } from '../../core/geometry/region';
import type { Placing } from '../../core/plan/placing';
import { placingOf } from '../../core/plan/placing';
import { simplify } from '../../core/geometry/simplify';
import type { Choices } from '../../core/plan/choices';
import type { Plan } from '../../core/plan/planned';
import type { Shop } from '../../core/plan/shop';
import { createPlanner, planAndCheck } from '../../core/plan/plan';
import { faceSvg } from '../../core/plan/faceSvg';
import { stripSvg } from '../../core/plan/stripSvg';
import type { OrderSummary } from '../../contracts/api';
import type { ApplyPage } from '../../contracts/bench';
import type { Finding } from '../../core/findings/finding';
import type { Again, PanelsAgain } from '../../core/films/again';
import type { MapPage } from '../../contracts/bench';
import type { Datum, FittingMap } from '../../core/panels/fittingMap';
import { fittingMap } from '../../core/panels/fittingMap';
import type { PaperKind, PlacingOf } from '../files/papers';
import type { PaperOrder } from '../files/sheet';

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

export interface MadePlan {
  readonly summary: OrderSummary;
  readonly findings: readonly Finding[];
  readonly cuts: readonly MadeCut[];
}

export { fewestSwapsOf } from './fewestSwapsOf';
export { registerSheet } from './registerSheet';

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
  const films = plan.separation.films.map(({ film }) => film);
  // what is printed on comes last, as it is cut last
  if (plan.printed) films.push(plan.printed.film);
  return {
    width,
    height,
    films: films.map(({ id, name, colour }) => ({ id, name, colour, mm: takenOf(plan, id) })),
    stops: plan.findings.filter((f) => f.severity === 'stop').length,
    checks: plan.findings.filter((f) => f.severity === 'check').length,
  };
}

/** mm that a plan takes of a film, with what it takes along of other orders. */
function takenOf({ cuts, printed }: Plan, film: string): number {
  const strips = [...cuts, ...(printed?.sheets ?? []).map(({ cut }) => cut)].map(({ strip }) => strip);
  return strips
    .filter((strip) => strip.film.id === film)
    .reduce((sum, { roll, length }) => sum + offOf(roll, length), 0);
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

/** What lies at places on a strip. */
export const onSign = (task: PlanTask & { readonly on: OnStrip }): OnSign | undefined =>
  onSignIn(planOf(task), task.on);

export type StripKind = 'plt' | 'svg';

export interface StripFile {
  /** Its id. */
  readonly strip: string;
  readonly bytes: Uint8Array;
}

/** All strips of a plan as files. */
export const strips = (task: PlanTask & { readonly kind: StripKind }): readonly StripFile[] =>
  planOf(task).cuts.map(({ strip, cutter, program }) => ({
    strip: strip.id,
    bytes:
      task.kind === 'svg'
        ? Buffer.from(stripSvg(strip))
        : hpglBytes(writeHpgl(program, cutter.device, strip.cuttable)),
  }));

/** A printed sheet as a file. */
interface SheetTask extends PlanTask {
  readonly sheetId: string;
  readonly orderNumber: number;
  readonly asked: SheetQuery;
  /** When the order was decided to be as it is. */
  readonly made: Date;
  /** Files of pictures that are printed as they are, by hash. */
  readonly files: ReadonlyMap<string, Uint8Array>;
}

/** A sheet's file, and what keeps the sheet from being printed. */
export interface SheetFile {
  readonly bytes: Uint8Array;
  readonly stop: string | undefined;
}

/** @returns undefined: the plan has no such sheet */
export async function sheetFile(task: SheetTask): Promise<SheetFile | undefined> {
  const plan = planOf(task);
  const bytes = await fileOf(task, plan);
  const stop = plan.findings.find(({ stage, severity }) => stage === 'print' && severity === 'stop');
  return bytes && { bytes, stop: stop?.message };
}

async function fileOf(
  { sheetId, asked, files, made, ...task }: SheetTask,
  { printed }: Plan,
): Promise<Uint8Array | undefined> {
  const index = printed?.sheets.findIndex(({ sheet }) => sheet.id === sheetId) ?? -1;
  if (!printed || index < 0) return undefined;
  const of = { printed, index, order: `#${task.orderNumber}`, print: task.choices.print, files, made };
  const { unit, sheet } = printed.sheets[index];
  const { sheetDxf, sheetPdf, sheetPlt, sheetPng, sheetSvg } = await import('../files/sheetFiles');
  switch (asked.as) {
    case 'pdf':
      return sheetPdf(of, asked.lines === 'yes');
    case 'png':
      return sheetPng(of, asked.dpi);
    case 'svg':
      return Buffer.from(sheetSvg(unit, sheet));
    case 'dxf':
      return Buffer.from(sheetDxf(unit, sheet));
    case 'plt':
      return sheetPlt(of);
  }
}

/** One of an order's papers. */
export async function print(
  task: PlanTask & { readonly kind: PaperKind; readonly order: PaperOrder },
): Promise<Uint8Array> {
  const plan = planOf(task);
  const { paper } = await import('../files/papers');
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
  if (!map) return null;
  const { mapPaper } = await import('../files/mapPaper');
  return mapPaper(map, plan.separation.films, task.order);
}
