/** Before all tests of the server: its tables are laid out once, and every test's database begins as a copy of them. */
import { openServer } from '../open';
import { EMPTY, freshDatabase, MIGRATED } from './freshDatabase.testing';

export default async function migrateOnce(): Promise<void> {
  // without a database only what needs none can be tested; tests that tests start have it already
  if (!process.env.DATABASE_URL || process.env.JEST_WORKER_ID) return;
  const server = await openServer({ databaseUrl: await freshDatabase(MIGRATED, EMPTY) });
  await server.close();
}
