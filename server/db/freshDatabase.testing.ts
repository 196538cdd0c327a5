import pg from 'pg';

/** A database without anything in it, and one with the server's tables and nothing in them. */
export const [EMPTY, MIGRATED] = ['template1', 'jampan_migrated'];

/**
 * A database of a test's own, beside the one of the run: tests must not meet what others leave behind.
 * @param template a database whose copy it is
 */
export async function freshDatabase(name: string, template = MIGRATED): Promise<string> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: run npm test');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name} template ${template}`);
  await client.end();
  return Object.assign(new URL(url), { pathname: `/${name}` }).href;
}
