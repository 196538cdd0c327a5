/** A raw TCP line to a cutter. Knows bytes and answers, not what they mean. */
import { connect as connectSocket } from 'node:net';
import type { Socket } from 'node:net';
import type { Link } from '../db/schema';

export class LinkLost extends Error {}

export interface CutterLink {
  /** Sends bytes; resolves when the cutter's side has taken them. */
  readonly send: (text: string) => Promise<void>;
  /** The next answer line. */
  readonly answer: (patience?: number) => Promise<string>;
  readonly close: () => void;
}

const CONNECT_MS = 4000;
const ANSWER_MS = 5000;

export async function openLink({ host, port }: Link): Promise<CutterLink> {
  const socket = await dial(host, port);
  let text = '';
  let lost: LinkLost | undefined;
  const answers: string[] = [];
  const waiting: { give: (line: string) => void; fail: (error: LinkLost) => void }[] = [];
  const lose = (why: string): void => {
    lost ??= new LinkLost(why);
    for (const { fail } of waiting.splice(0)) fail(lost);
  };
  socket.setNoDelay(true);
  socket.on('data', (bytes) => {
    text += bytes.toString('latin1');
    const lines = text.split('\r');
    text = lines.pop() ?? '';
    for (const line of lines) {
      const next = waiting.shift();
      if (next) next.give(line);
      else answers.push(line);
    }
  });
  socket.on('error', () => lose('the line to the cutter broke'));
  socket.on('close', () => lose('the cutter closed the line'));

  return {
    send: (bytes) =>
      new Promise((done, fail) => {
        if (lost) return fail(lost);
        socket.write(bytes, 'latin1', (error) =>
          error ? fail(new LinkLost('the line to the cutter broke')) : done(),
        );
      }),
    answer: (patience = ANSWER_MS) => {
      const ready = answers.shift();
      if (ready !== undefined) return Promise.resolve(ready);
      if (lost) return Promise.reject(lost);
      return new Promise((done, fail) => {
        const entry = {
          give: (line: string) => (clearTimeout(timer), done(line)),
          fail: (error: LinkLost) => (clearTimeout(timer), fail(error)),
        };
        const timer = setTimeout(() => {
          waiting.splice(waiting.indexOf(entry), 1);
          fail(new LinkLost('the cutter does not answer'));
        }, patience);
        waiting.push(entry);
      });
    },
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
