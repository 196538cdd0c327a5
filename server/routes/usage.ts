import { bookingsCsv, usageOf } from '../services/usage';
import { keptNow } from '../services/housekeeping';
import { wantedNow } from '../services/wanted';
import type { Handlers } from './mount';
import { download } from './sent';

/** Stock, and what became of film and time. */
export const usageRoutes = {
  'GET /api/films/wanted': ({ services }) => wantedNow(services.db),
  'GET /api/usage': ({ query, services }) => usageOf(services.db, query),
  'GET /api/kept': ({ services }) => keptNow(services.db),
  'GET /api/usage.csv': async ({ query, services }) =>
    download(
      Buffer.from(await bookingsCsv(services.db, query)),
      `film ${query.from} to ${query.to}.csv`,
      'text/csv; charset=utf-8',
    ),
} satisfies Partial<Handlers>;
