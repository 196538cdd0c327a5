/** A raw TCP port of a cutter. */
import { connect as connectSocket } from 'node:net';
import type { Socket } from 'node:net';
import type { CutterLink } from './link';
import { BROKEN, gatherAnswers, LinkLost } from './link';

const CONNECT_MS = 4000;

export async function openTcp(host: string, port: number): Promise<CutterLink> {
  const socket = await dial(host, port);
  const answers = gatherAnswers(() => socket.destroy());
  socket.setNoDelay(true);
  socket.on('data', answers.hear);
  socket.on('error', () => answers.lose(BROKEN));
  socket.on('close', () => answers.lose('the cutter closed the line'));
  return {
    send: (text) =>
      new Promise((done, fail) => {
        const lost = answers.lost();
        if (lost) return fail(lost);
        socket.write(text, 'latin1', (error) => (error ? fail(new LinkLost(BROKEN)) : done()));
      }),
    answer: answers.next,
    close: () => {
      socket.removeAllListeners('close');
      socket.destroy();
    },
  };
}

function dial(host: string, port: number): Promise<Socket> {
  return new Promise((done, fail) => {
    const socket = connectSocket({ host, port });
    const timer = setTimeout(() => give(new LinkLost('no answer')), CONNECT_MS);
    const give = (error?: LinkLost): void => {
      clearTimeout(timer);
      socket.removeAllListeners('error');
      if (!error) return done(socket);
      socket.destroy();
      fail(error);
    };
    socket.once('connect', () => give());
    socket.once('error', () => give(new LinkLost('the port is closed')));
  });
}
