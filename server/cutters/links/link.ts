/** A line to a cutter. Knows bytes and answers, not what they mean. */
export class LinkLost extends Error {}
/** The line stands, and nothing came over it. */
export class NoAnswer extends LinkLost {}

export interface CutterLink {
  /** Sends bytes; resolves when the cutter's side has taken them. */
  readonly send: (text: string) => Promise<void>;
  /** The next answer line. @throws LinkLost when none comes, or the cutter answers nothing at all */
  readonly answer: (patience?: number) => Promise<string>;
  readonly close: () => void;
}

const ANSWER_MS = 5000;
export const BROKEN = 'the line to the cutter broke';

/** Answers as they come in, for whoever waits for them in turn. */
interface Answers {
  readonly hear: (bytes: Buffer) => void;
  readonly lose: (why: string) => void;
  /** Why the line is lost; undefined: it stands. */
  readonly lost: () => LinkLost | undefined;
  readonly next: CutterLink['answer'];
}

/** Bytes of an answer, and answers that nobody asked for: a cutter that sends without end is no cutter. */
const [LONGEST_ANSWER, MOST_UNREAD] = [64 * 1024, 1000];

/** @param end closes the line to what sends without end */
export function gatherAnswers(end: () => void): Answers {
  let text = '';
  let lost: LinkLost | undefined;
  const answers: string[] = [];
  const waiting: { give: (line: string) => void; fail: (error: LinkLost) => void }[] = [];
  const lose = (why: string): void => {
    lost ??= new LinkLost(why);
    for (const { fail } of waiting.splice(0)) fail(lost);
  };
  return {
    hear: (bytes) => {
      if (lost) return;
      text += bytes.toString('latin1');
      const lines = text.split('\r');
      text = lines.pop() ?? '';
      for (const line of lines) {
        const next = waiting.shift();
        if (next) next.give(line);
        else answers.push(line);
      }
      if (text.length <= LONGEST_ANSWER && answers.length <= MOST_UNREAD) return;
      text = '';
      answers.length = 0;
      lose('what listens there sends without end, and is no cutter');
      end();
    },
    lose,
    lost: () => lost,
    next: (patience = ANSWER_MS) => {
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
          fail(new NoAnswer('the cutter does not answer'));
        }, patience);
        waiting.push(entry);
      });
    },
  };
}

/** A line that only takes. */
export const answersNothing: CutterLink['answer'] = () =>
  Promise.reject(new LinkLost('its link says that it answers nothing'));
