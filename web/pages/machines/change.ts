import type { CutterChange } from '../../../contracts/shop';
import type { Cutter } from '../../../core/layout/cutter';

/** A part of a machine's record that is shown and changed. */
export interface MachineProps {
  readonly machine: Cutter;
}
/** What is changed of it. */
export interface MachineEmits {
  change: [what: CutterChange];
}
