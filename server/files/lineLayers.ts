/** How kinds of line are told apart in files. */
import type { LineKind } from '../../core/artwork/choices';

/** How a kind of line is told: its spot colour or layer, what stands in for it on a screen, and its processing step. */
interface LineLayer {
  readonly spot: string;
  /** C, M, Y, K in % */
  readonly shown: readonly [number, number, number, number];
  /** Colour number in a drawing: 1 red, 3 green, 4 cyan, 5 blue, 6 magenta, 8 grey. */
  readonly aci: number;
  /** ISO 19593-1, group Structural (names from memory); missing: it has none for it. */
  readonly step?: 'PartialCutting' | 'Cutting' | 'Perforating' | 'Creasing';
}

export const LAYERS: Readonly<Record<LineKind, LineLayer>> = {
  pen: { spot: 'Pen', shown: [0, 0, 0, 60], aci: 8 },
  crease: { spot: 'Crease', shown: [80, 80, 0, 0], aci: 5, step: 'Creasing' },
  kiss: { spot: 'Kiss cut', shown: [0, 100, 20, 0], aci: 6, step: 'PartialCutting' },
  perforated: { spot: 'Perforated cut', shown: [60, 0, 100, 0], aci: 3, step: 'Perforating' },
  through: { spot: 'Through cut', shown: [100, 40, 0, 0], aci: 4, step: 'Cutting' },
  print: { spot: 'Print only', shown: [0, 0, 0, 30], aci: 8 },
};
