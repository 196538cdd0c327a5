/**
 * Simulated machines that run beside the server. A link names one, and whoever runs it says where it is (SIMULATORS, JSON by
 * name): so no address that is stored is ever rewritten.
 */
import { z } from 'zod';
import type { Link } from '../../db/link';

const addressesSchema = z.record(
  z.string(),
  z.object({ host: z.string(), port: z.number(), panel: z.string() }),
);
type Address = z.infer<typeof addressesSchema>[string];

/** @returns undefined: it does not run */
export function simulatorAt(name: string): Address | undefined {
  const all = addressesSchema.parse(JSON.parse(process.env.SIMULATORS ?? '{}'));
  return Object.hasOwn(all, name) ? all[name] : undefined;
}

/** Where a simulated machine's own panel is, with its record of the knife's way; undefined: it is none, or does not run. */
export const panelOf = (link: Link): string | undefined =>
  link.by === 'simulator' ? simulatorAt(link.name)?.panel : link.panel;

const NAMED = /^simulator:(.+)$/;

/** What a setting names instead of an address, where it names a simulated machine; else the address itself. */
export function addressOf(setting: string): string | undefined {
  const name = NAMED.exec(setting)?.[1];
  return name === undefined ? setting : simulatorAt(name)?.panel;
}
