/** Device files that cutters may be at: those of ports, and none of the machine's own. */
import { realpath, stat } from 'node:fs/promises';
import { normalize } from 'node:path';
import { LinkLost } from './link';

const USUAL = [
  '/dev/ttyUSB*',
  '/dev/ttyACM*',
  '/dev/ttyS*',
  '/dev/usb/lp*',
  '/dev/lp*',
  '/dev/serial/by-*/*',
];

/** Of the setting CUTTER_DEVICES, see docs/network.md. */
export const allowedDevices = (): readonly string[] =>
  process.env.CUTTER_DEVICES?.split(',').map((one) => one.trim()) ?? USUAL;

/** @throws LinkLost when there is none, or cutters are at no such device */
export async function deviceFile(path: string): Promise<string> {
  if (!isAllowed(normalize(path)))
    throw new LinkLost(`${path} is no port that cutters are at: see CUTTER_DEVICES in docs/network.md`);
  const found = await realpath(path).catch(() => undefined);
  const device = found && (await stat(found).catch(() => undefined));
  if (!device) throw new LinkLost(`there is no ${path}`);
  if (!device.isCharacterDevice()) throw new LinkLost(`${path} is no port`);
  return path;
}

/** A star stands for anything within one name. */
const isAllowed = (path: string): boolean =>
  allowedDevices().some((glob) => {
    const names = glob.split('*').map((text) => text.replace(/[.+?^${}()|[\]\\]/g, '\\$&'));
    return new RegExp(`^${names.join('[^/]*')}$`).test(path);
  });
