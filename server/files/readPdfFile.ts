import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Artwork } from '../../core/readers/artwork';
import type { FileSource } from '../../core/artwork/choices';
import type { PdfPage } from '../../core/readers/pdf/parsed';
import { readPdf, TooManySteps } from '../../core/readers/pdf/readPdf';
import { FileProblem } from './fileProblem';
import type { Tell } from './tell';
import { askChild, launch } from './launch';
import { ownFolder } from './ownFolder';

const CHILD = join(process.cwd(), 'server/files/pdf-child.mjs');

/** Reads one page of a PDF, or of a file that a drawing program saved as one. */
export async function readPdfFile(
  bytes: Uint8Array,
  { page, box }: Pick<FileSource, 'page' | 'box'>,
  tell?: Tell,
): Promise<Artwork> {
  const answer = await askChild<PdfPage & { problem?: string }>(CHILD, [String(page ?? 1)], bytes);
  tell?.(0.7);
  if (answer.problem !== undefined) throw problemOf(answer.problem);
  try {
    return readPdf(answer, box);
  } catch (error) {
    throw error instanceof TooManySteps ? problemOf('complicated') : error;
  }
}

export function problemOf(problem: string): FileProblem {
  if (problem === 'password') {
    return new FileProblem(
      'password',
      'The PDF is locked with a password. Ask for one without, or save it again without the password.',
    );
  }
  if (problem === 'protected') {
    return new FileProblem(
      'protected',
      'The PDF is protected against changes, so it cannot be laid on a sheet as it is. Save it again without protection, or print its shapes.',
    );
  }
  if (problem === 'complicated') {
    return new FileProblem(
      'unworkable',
      'The page has more than three million drawing steps. Split or simplify it and bring it in again.',
    );
  }
  return new FileProblem(
    'unreadable',
    'The PDF is damaged or part of it is missing. Save or send it again and bring that in.',
  );
}

/** What an interpreter of programs may use: a little memory, a minute, a PDF of some size. */
const EPS_LIMITS = { memory: 2000, seconds: 20, fileSize: 300 } as const;

/** Reads EPS and PostScript. @throws FileProblem when it cannot be drawn */
export async function readEps(bytes: Uint8Array, tell?: Tell): Promise<Artwork> {
  const pdf = await pdfOfEps(bytes);
  tell?.(0.4);
  return readPdfFile(pdf, { page: null, box: null });
}

/**
 * EPS and PostScript as PDF: Ghostscript draws it as a PDF, where it is installed. The file is a program: it gets a
 * folder of its own for this one run, which is all that it may read, write or delete in, and nothing of our environment.
 */
export async function pdfOfEps(bytes: Uint8Array): Promise<Buffer> {
  const dir = await mkdtemp(join(await ownFolder('eps'), 'run-'));
  try {
    const [input, output] = [join(dir, 'in.eps'), join(dir, 'out.pdf')];
    await writeFile(input, bytes);
    const args = [
      ...[
        '-q',
        '-dSAFER',
        '-dBATCH',
        '-dNOPAUSE',
        '-dEPSCrop',
        '-sDEVICE=pdfwrite',
        '-dAutoRotatePages=/None',
      ],
      // colours stay what they are; pictures are not cut and may stay as they come
      ...['-dColorConversionStrategy=/LeaveColorUnchanged', `-sOutputFile=${output}`, input],
    ];
    const env = { TMPDIR: dir, TEMP: dir, TMP: dir, HOME: dir };
    await launch({ command: 'gs', args, input: '', limits: EPS_LIMITS, env, cwd: dir });
    const pdf = await readFile(output).catch(() => undefined);
    if (!pdf || pdf.length === 0) throw unreadableEps();
    return pdf;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') throw noGhostscript();
    throw error;
  } finally {
    await rm(dir, { recursive: true, force: true });
  }
}

const noGhostscript = (): FileProblem =>
  new FileProblem(
    'no-ghostscript',
    'EPS needs Ghostscript, which is not installed on this machine. Install the package “ghostscript”, or save the drawing as PDF or SVG and bring that in.',
  );

const unreadableEps = (): FileProblem =>
  new FileProblem(
    'unreadable',
    'The EPS is damaged or part of it is missing. Save or send it again, or save it as PDF.',
  );
