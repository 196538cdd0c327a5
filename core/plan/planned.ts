/** What a plan is. */
import type { PreparedArtwork } from '../artwork/prepare';
import type { Film } from '../films/film';
import type { Separation } from '../films/separate';
import type { Finding } from '../findings/finding';
import type { Cutter } from '../layout/cutter';
import type { WeededStrip } from '../weeding/weeding';
import type { PanelPart } from '../panels/panel';
import type { Panelling } from '../panels/seams';
import type { SheetEdges } from '../print/choices';
import type { PrintSheet, PrintUnit } from '../print/sheets';
import type { CutProgram } from '../toolpath/program';
import type { FilmRecipes } from './recipes';

/** A sheet and its cut. */
export interface PlannedSheet {
  readonly sheet: PrintSheet;
  /** What each of its places shows. */
  readonly unit: PrintUnit;
  /** Of art that is taken apart: the number of its panel. */
  readonly panel?: number;
  readonly cut: PlannedCut;
}

/** What of an order is printed. */
export interface Printed {
  /** One copy, whole. */
  readonly unit: PrintUnit;
  readonly film: Film;
  readonly cutter: Cutter;
  /** What the printer, and what the rollers of the cutter leave of a sheet. */
  readonly edges: { readonly printer: SheetEdges; readonly cutter: SheetEdges };
  readonly sheets: readonly PlannedSheet[];
}

/** What of an order is printed, and what is found about it. */
export interface PrintPlan {
  /** Undefined: something keeps it from being laid on sheets. */
  readonly printed: Printed | undefined;
  readonly panels: readonly PanelPart[];
  readonly findings: readonly Finding[];
}
export const NOTHING_PRINTED: PrintPlan = { printed: undefined, panels: [], findings: [] };

/** One cut: a strip with its recipe and all that the knife does. */
export interface PlannedCut extends Omit<FilmRecipes, 'kinds'> {
  readonly strip: WeededStrip;
  readonly cutter: Cutter;
  readonly program: CutProgram;
}

export interface Totals {
  /** mm of film, mm² of film, seconds at the cutter, changes of film between cuts */
  readonly filmLength: number;
  readonly filmArea: number;
  readonly seconds: number;
  readonly swaps: number;
}

export interface Plan {
  readonly prepared: PreparedArtwork;
  readonly separation: Separation;
  /** The order's; a cut says where it goes itself. */
  readonly cutter: Cutter | undefined;
  /** Where what is larger than its cutter is taken apart; undefined: nothing is. */
  readonly panelling: Panelling | undefined;
  readonly panels: readonly PanelPart[];
  readonly cuts: readonly PlannedCut[];
  /** What is printed and cut around; undefined: nothing is, or it cannot be. */
  readonly printed: Printed | undefined;
  readonly totals: Totals;
  readonly findings: readonly Finding[];
}

/** Everything that is cut: strips of film, then printed sheets. */
export const allCuts = ({ cuts, printed }: Pick<Plan, 'cuts' | 'printed'>): readonly PlannedCut[] => [
  ...cuts,
  ...(printed?.sheets ?? []).map(({ cut }) => cut),
];

/** What one film comes to on its cutter, and what has to be told of how it lies and of its recipe. */
export interface FilmCut {
  readonly panels: readonly PanelPart[];
  readonly cuts: readonly PlannedCut[];
  readonly findings: readonly Finding[];
}
