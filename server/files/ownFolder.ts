import { chmod, lstat, mkdir } from 'node:fs/promises';
import { join } from 'node:path';

/** Where the app keeps what it can make again: nobody else may write there, since some of it is run or opened later. */
const HOME = process.env.CACHE_DIR ?? join(process.cwd(), '.data', 'cache');

/** A folder of the app's own, for its user alone. @throws Error when something else lies in its place */
export async function ownFolder(name: string): Promise<string> {
  const folder = join(HOME, name);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  for (const one of [HOME, folder]) {
    const { uid } = await lstat(one);
    if (process.getuid && uid !== process.getuid()) throw new Error(`${one} belongs to somebody else`);
    await chmod(one, 0o700);
  }
  return folder;
}
