import { readFile, rm } from 'node:fs/promises';
import type { Request, RequestHandler, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import multer from 'multer';
import { LARGEST_UPLOAD } from '../files/limits';
import { ownFolder } from '../files/ownFolder';
import { tooBusy, Trouble } from '../problem';
import type { Watch } from '../work/pool';
import { STEPS_TYPE } from '../../contracts/api';

/** What uploads may take of the server, all together. */
export interface UploadLimits {
  readonly perMinute: number;
  /** That come in at the same time; with the largest size of each, what they take of the disk. */
  readonly atOnce?: number;
  /** Bytes a second that a sender has to keep up, and ms until that is asked for. */
  readonly slowest?: number;
  readonly patience?: number;
}

/** Takes one file in the field `file` onto the disk: not too large, not too many, not too slowly. */
export function oneFile({
  perMinute,
  atOnce = 12,
  slowest = 8 * 1024,
  patience = 10_000,
}: UploadLimits): RequestHandler[] {
  let underWay = 0;
  const admit: RequestHandler = (request, response, next) => {
    if (underWay >= atOnce) {
      // what is still sent goes nowhere, or the sender would not hear of this
      request.resume();
      return next(tooBusy());
    }
    underWay++;
    const end = endSlow(request, slowest, patience);
    const over = once(() => {
      end();
      underWay--;
    });
    request.once('end', over);
    response.once('close', over);
    next();
  };
  return [
    rateLimit({
      windowMs: 60_000,
      limit: perMinute,
      standardHeaders: true,
      legacyHeaders: false,
      message: {
        code: 'too-fast',
        message: `More than ${perMinute} files came in within a minute. Wait a little, then go on.`,
      },
    }),
    admit,
    multer({
      storage: multer.diskStorage({
        destination: (_request, _file, give) =>
          void ownFolder('uploads').then(
            (to) => give(null, to),
            (error: Error) => give(error, ''),
          ),
      }),
      limits: { fileSize: LARGEST_UPLOAD, files: 1, fields: 4 },
    }).single('file'),
    removeAfterwards,
  ];
}

const once = (work: () => void): (() => void) => {
  let isDone = false;
  return () => {
    if (isDone) return;
    isDone = true;
    work();
  };
};

/** Breaks off a request that sends less than it has to. @returns stops looking */
function endSlow({ socket }: Request, slowest: number, patience: number): () => void {
  let known = socket.bytesRead;
  const timer = setInterval(() => {
    const came = socket.bytesRead - known;
    known = socket.bytesRead;
    if (came < (slowest * patience) / 1000) socket.destroy();
  }, patience);
  return () => clearInterval(timer);
}

const removeAfterwards: RequestHandler = (request, response, next) => {
  const { file } = request;
  if (file) response.once('close', () => void rm(file.path, { force: true }));
  next();
};

/** The file that came, with its name as the sender wrote it. @throws Trouble when none came */
export async function uploadedFile({ file }: Request): Promise<{ name: string; bytes: Buffer }> {
  if (!file) throw new Trouble(400, 'no-file', 'No file came with that. Drop a drawing on the page.');
  const given = Buffer.from(file.originalname, 'latin1').toString('utf8');
  // by whole characters: half of one cannot be kept
  const name = [...given.replace(/[\p{Cc}\p{Cs}]/gu, ' ')].slice(0, 200).join('');
  const bytes = await readFile(file.path);
  await rm(file.path, { force: true });
  return { name, bytes };
}

/**
 * Answers with what the work gives. A sender who takes steps hears on the way how far it has come, one line of JSON
 * each: `{"share":…}`, at last `{"value":…}`; or `{"status":…,"problem":…}`, which the error handler writes.
 */
export async function answerInSteps<T>(
  request: Request,
  response: Response,
  work: (watch: Watch) => Promise<T>,
): Promise<void> {
  const signal = untilGone(response);
  if (request.get('accept') !== STEPS_TYPE) {
    response.json(await work({ signal }));
    return;
  }
  const tell = (share: number): void => {
    if (!response.headersSent) response.type(STEPS_TYPE);
    if (!response.writableEnded) response.write(`${JSON.stringify({ share })}\n`);
  };
  const value = await work({ signal, tell });
  if (response.headersSent) response.end(JSON.stringify({ value }));
  else response.json(value);
}

/** Aborts when the sender goes away before the answer: nobody waits for the work any more. */
function untilGone(response: Response): AbortSignal {
  const controller = new AbortController();
  response.on('close', () => !response.writableFinished && controller.abort());
  return controller.signal;
}
