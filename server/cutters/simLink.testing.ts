/** A link to a simulated machine whose time passes only while an answer is waited for: hundreds of runs cost seconds. */
import type { Machine } from '../../cutter-sim/machine';
import { createMachine } from '../../cutter-sim/machine';
import type { MachineSpec } from '../../cutter-sim/spec';
import type { CutterLink } from './links/link';
import { LinkLost } from './links/link';

/** Seconds of the machine's own time from one look to the next, and after which it does not answer any more. */
const [STEP, PATIENCE] = [5, 3600];

export function simLink(
  spec: MachineSpec,
  seed?: number,
): { readonly machine: Machine; readonly link: CutterLink } {
  const answers: string[] = [];
  let half = '';
  const machine = createMachine(
    spec,
    (text) => {
      const lines = (half + text).split('\r');
      half = lines.pop() ?? '';
      for (const line of lines) answers.push(line);
    },
    seed,
  );
  const link: CutterLink = {
    send: async (text) => {
      let taken = machine.receive(text);
      while (!taken) {
        machine.advance(STEP);
        taken = !machine.isFull();
      }
    },
    answer: async () => {
      for (let seconds = 0; seconds < PATIENCE; seconds += STEP) {
        const next = answers.shift();
        if (next !== undefined) return next;
        machine.advance(STEP);
      }
      throw new LinkLost('the cutter does not answer');
    },
    close: () => {},
  };
  return { machine, link };
}
