/** Stock, and what became of film and time. */
import { z } from 'zod';
import { filmWantedSchema, keptSchema, usageQuerySchema, usageSchema } from '../usage';
import type { Endpoints } from './endpoint';

export const usageEndpoints = {
  'GET /api/films/wanted': {
    says: 'What of each film is wanted by the queue, and by orders that are not in it yet',
    gives: z.array(filmWantedSchema).readonly(),
  },
  'GET /api/usage': {
    query: usageQuerySchema,
    says: 'What became of film and of the cutters’ time',
    gives: usageSchema,
  },
  'GET /api/kept': { says: 'How much the server keeps of what grows', gives: keptSchema },
  'GET /api/usage.csv': {
    query: usageQuerySchema,
    says: 'Every change of the shelf as a table',
    gives: 'text/csv',
  },
} satisfies Endpoints;
