import pg from 'pg';

/** An empty database of a test's own, beside the one of the run: tests must not meet what others leave behind. */
export async function freshDatabase(name: string): Promise<string> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: run npm test');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  await client.end();
  return Object.assign(new URL(url), { pathname: `/${name}` }).href;
}
