import { spawn } from 'node:child_process';
import { join } from 'node:path';
import type { Artwork } from '../../core/artwork/artwork';
import { readResolvedSvg } from '../../core/artwork/readResolvedSvg';
import { FileProblem } from './fileProblem';
import { inspectSvg } from './inspectSvg';

export const LARGEST_UPLOAD = 40 * 1024 * 1024;
const THUMBNAIL_WIDTH = 480;
const PATIENCE_MS = 60_000;
const CHILD = join(process.cwd(), 'server/files/resolve-child.mjs');

export interface ReadFile {
  readonly artwork: Artwork;
  /** PNG of the file as the customer sees it; empty when it could not be drawn. */
  readonly thumbnail: Uint8Array;
}

/**
 * Reads a customer's SVG.
 * @throws FileProblem with a sentence for a person when it cannot be read
 */
export async function readSvg(bytes: Uint8Array): Promise<ReadFile> {
  if (bytes.length > LARGEST_UPLOAD) throw tooBig(bytes.length);
  const { text, findings } = inspectSvg(bytes);
  const resolved = await resolve(text);
  const artwork = readResolvedSvg(resolved.svg, findings);
  if (artwork.shapes.length === 0) throw nothingToCut(artwork);
  return { artwork, thumbnail: Buffer.from(resolved.png, 'base64') };
}

export const tooBig = (bytes?: number): FileProblem =>
  new FileProblem(
    'too-big',
    `The file is ${bytes ? `${(bytes / 1024 / 1024).toFixed(0)} MB` : 'too large'}; 40 MB is the most. Take placed pictures out of the drawing or split it, and bring it in again.`,
  );

function nothingToCut(artwork: Artwork): FileProblem {
  const why = artwork.findings.map((finding) => finding.message).join(' ');
  return new FileProblem(
    'nothing-to-cut',
    `There is nothing in this file that a knife can cut: no filled shape and no line with a width. ${why} Turn text and pictures into outlines in the drawing and bring it in again.`.replace(
      / {2,}/g,
      ' ',
    ),
  );
}

interface Resolved {
  readonly svg: string;
  readonly png: string;
}

function resolve(text: string): Promise<Resolved> {
  return new Promise((done, fail) => {
    const child = spawn(process.execPath, [CHILD, String(THUMBNAIL_WIDTH)], {
      stdio: ['pipe', 'pipe', 'ignore'],
    });
    const out: Buffer[] = [];
    const timer = setTimeout(() => child.kill('SIGKILL'), PATIENCE_MS);
    child.stdout.on('data', (chunk: Buffer) => out.push(chunk));
    child.on('error', fail);
    child.stdin.on('error', () => {}); // the child may die before it has read everything; `close` tells
    child.on('close', () => {
      clearTimeout(timer);
      try {
        done(answerOf(Buffer.concat(out).toString('utf8')));
      } catch (error) {
        fail(error);
      }
    });
    child.stdin.end(text);
  });
}

function answerOf(output: string): Resolved {
  if (output === '') {
    throw new FileProblem(
      'unworkable',
      'The drawing is too complicated to read: it took longer than a minute or more memory than there is. Simplify it and bring it in again.',
    );
  }
  const answer = JSON.parse(output) as Resolved & { problem?: string };
  if (answer.problem === undefined) return answer;
  if (/size/i.test(answer.problem)) {
    throw new FileProblem(
      'no-size',
      'The drawing says it is nought wide or high. Give its page a size in the drawing, save it and bring it in again.',
    );
  }
  throw new FileProblem(
    'unreadable',
    'The drawing cannot be read as SVG. Save it again as SVG and bring that in.',
  );
}
