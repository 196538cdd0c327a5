/** A device file that is written to. */
import { spawn } from 'node:child_process';
import { deviceFile } from './deviceFiles';
import type { CutterLink } from './link';
import { answersNothing, BROKEN, LinkLost } from './link';

/** By a process of its own: whoever writes to a port that takes nothing waits in the kernel, and can only be killed there. */
export async function openDevice(device: string): Promise<CutterLink> {
  const path = await deviceFile(device);
  const writer = spawn('sh', ['-c', 'exec cat > "$1"', 'sh', path], { stdio: ['pipe', 'ignore', 'ignore'] });
  let lost: LinkLost | undefined;
  const lose = (): void => void (lost ??= new LinkLost(BROKEN));
  writer.once('error', lose);
  writer.once('exit', lose);
  writer.stdin.on('error', lose);
  return {
    send: (text) =>
      new Promise((done, fail) => {
        if (lost) return fail(lost);
        writer.stdin.write(text, 'latin1', (error) => (error ? fail(new LinkLost(BROKEN)) : done()));
      }),
    answer: answersNothing,
    close: () => {
      writer.removeAllListeners('exit');
      writer.stdin.end();
      // what it has not written by then is taken by nobody
      setTimeout(() => writer.kill('SIGKILL'), LAST_MS).unref();
    },
  };
}
const LAST_MS = 2000;
