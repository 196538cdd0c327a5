import type { Request, RequestHandler, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import multer from 'multer';
import { LARGEST_UPLOAD } from '../files/limits';
import { Trouble } from '../problem';
import type { Watch } from '../work/pool';
import { STEPS_TYPE } from '../../contracts/api';

/** Takes one file in the field `file`, not too large and not too many in a minute. */
export const oneFile = (filesPerMinute: number): RequestHandler[] => [
  rateLimit({
    windowMs: 60_000,
    limit: filesPerMinute,
    standardHeaders: true,
    legacyHeaders: false,
    message: {
      code: 'too-fast',
      message: `More than ${filesPerMinute} files came in within a minute. Wait a little, then go on.`,
    },
  }),
  multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: LARGEST_UPLOAD, files: 1, fields: 4 },
  }).single('file'),
];

/** The file that came, with its name as the sender wrote it. @throws Trouble when none came */
export function uploadedFile(request: Request): { name: string; bytes: Buffer } {
  if (!request.file) throw new Trouble(400, 'no-file', 'No file came with that. Drop a drawing on the page.');
  const given = Buffer.from(request.file.originalname, 'latin1').toString('utf8');
  // by whole characters: half of one cannot be kept
  const name = [...given.replace(/[\p{Cc}\p{Cs}]/gu, ' ')].slice(0, 200).join('');
  return { name, bytes: request.file.buffer };
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
