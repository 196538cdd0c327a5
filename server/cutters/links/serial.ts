/** A serial port, RS-232 or one over USB. */
import { SerialPort } from 'serialport';
import type { SerialLink } from '../../db/link';
import { deviceFile } from './deviceFiles';
import type { CutterLink } from './link';
import { BROKEN, gatherAnswers, LinkLost } from './link';

export async function openSerial({ device, baud, flow }: SerialLink): Promise<CutterLink> {
  const port = await openPort(await deviceFile(device), baud, flow);
  const answers = gatherAnswers(() => port.close(() => {}));
  port.on('data', answers.hear);
  port.on('error', () => answers.lose(BROKEN));
  port.on('close', () => answers.lose('the serial port went away'));
  return {
    // what is drained has left for the cutter: with a handshake it has taken it
    send: (text) =>
      new Promise((done, fail) => {
        const broken = (): void => fail(answers.lost() ?? new LinkLost(BROKEN));
        if (answers.lost()) return broken();
        port.write(text, 'latin1', (error) => {
          if (error) return broken();
          port.drain((undone) => (undone ? broken() : done()));
        });
      }),
    answer: answers.next,
    close: () => {
      port.removeAllListeners('close');
      // what the other side does not take is thrown away: closing would wait for it
      port.flush(() => port.close(() => {}));
    },
  };
}

function openPort(path: string, baudRate: number, flow: SerialLink['flow']): Promise<SerialPort> {
  const port = new SerialPort({
    path,
    baudRate,
    rtscts: flow === 'hardware',
    xon: flow === 'software',
    xoff: flow === 'software',
    autoOpen: false,
  });
  return new Promise((done, fail) =>
    port.open((error) =>
      error ? fail(new LinkLost(`the serial port ${path} cannot be opened`)) : done(port),
    ),
  );
}
