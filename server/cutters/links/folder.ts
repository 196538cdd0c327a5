/** A folder into which cuts are written as files. */
import { randomUUID } from 'node:crypto';
import { access, constants, mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { LinkLost } from './link';

/** Where those folders are: of the setting CUT_FOLDERS, see docs/network.md. */
const root = (): string => process.env.CUT_FOLDERS ?? join(process.cwd(), '.data', 'folders');

/** @throws LinkLost when it cannot be written to */
export async function cutFolder(folder: string): Promise<string> {
  const path = join(root(), folder);
  try {
    await mkdir(path, { recursive: true });
    await access(path, constants.W_OK);
    return path;
  } catch {
    throw new LinkLost(`the folder ${path} cannot be written to`);
  }
}

/** A file that appears whole or not at all. @returns takes it back, if it is there still */
export async function writeCut(folder: string, name: string, text: string): Promise<() => Promise<boolean>> {
  const path = await cutFolder(folder);
  const [unfinished, file] = [join(path, `.${randomUUID()}`), join(path, name)];
  try {
    await writeFile(unfinished, text, 'latin1');
    await rename(unfinished, file);
  } catch {
    await rm(unfinished, { force: true }).catch(() => {});
    throw new LinkLost(`the folder ${path} cannot be written to`);
  }
  return () =>
    rm(file).then(
      () => true,
      () => false,
    );
}
