/** Opens the line to a cutter, whichever it has. */
import type { Link } from '../../db/link';
import { isSilent } from '../../db/link';
import { openDevice } from './device';
import { cutFolder } from './folder';
import type { CutterLink } from './link';
import { answersNothing, LinkLost } from './link';
import { openSerial } from './serial';
import { simulatorAt } from './simulators';
import { openTcp } from './tcp';

/** @throws LinkLost when it cannot be reached */
export async function openLink(link: Link): Promise<CutterLink> {
  const opened = await openBy(link);
  return isSilent(link) ? { ...opened, answer: answersNothing } : opened;
}

async function openBy(link: Link): Promise<CutterLink> {
  switch (link.by) {
    case 'serial':
      return openSerial(link);
    case 'device':
      return openDevice(link.device);
    case 'folder':
      return openFolder(link.folder);
    case 'simulator':
      return openSimulator(link.name);
    default:
      return openTcp(link.host, link.port);
  }
}

function openSimulator(name: string): Promise<CutterLink> {
  const at = simulatorAt(name);
  if (!at) throw new LinkLost(`no simulator “${name}” runs beside this server`);
  return openTcp(at.host, at.port);
}

/** Nothing is said to a folder: a cut is written into it whole (`cutIntoFolder.ts`). */
async function openFolder(folder: string): Promise<CutterLink> {
  await cutFolder(folder);
  const send = () => Promise.reject(new LinkLost('a folder takes whole cuts'));
  return { send, answer: answersNothing, close: () => {} };
}
