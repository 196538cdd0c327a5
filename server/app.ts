import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { createSession } from 'better-sse';
import type { Express } from 'express';
import express from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { cutterQuerySchema } from '../contracts/api';
import { openApi } from '../contracts/openapi';
import { Trouble } from './problem';
import { artworkRoutes } from './routes/artwork';
import { cutRoutes } from './routes/cuts';
import { errorHandler, handle, parse, sameSiteOnly } from './routes/guard';
import { filmRoutes } from './routes/films';
import { orderRoutes } from './routes/orders';
import { createLookout } from './cutters/look';
import type { CutServices } from './services/cuts';
import { loadShop } from './services/shop';

/** The whole application as an Express app; it listens nowhere by itself. */
export function createApp(services: CutServices, log: Logger, pagesDir?: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(logRequests(log));
  app.use(sameSiteOnly);
  app.use(express.json({ limit: '2mb' }));
  const description = openApi();
  app.get('/api/openapi.json', (_request, response) => void response.json(description));
  app.get(
    '/api/health',
    handle(async (_request, response) =>
      response.json({ films: (await loadShop(services.db)).films.length }),
    ),
  );
  app.get(
    '/api/shop',
    handle(async (_request, response) => response.json(await loadShop(services.db))),
  );
  app.get(
    '/api/events',
    handle(async (request, response) => services.hub.pages.register(await createSession(request, response))),
  );
  const lookout = createLookout(services.db);
  app.get(
    '/api/cutters',
    handle(async (request, response) => {
      const { only } = parse(cutterQuerySchema, request.query);
      response.json(await lookout.states(only));
    }),
  );
  app.use('/api/orders', orderRoutes(services));
  app.use('/api/cuts', cutRoutes(services));
  app.use('/api', artworkRoutes(services));
  app.use('/api', filmRoutes(services));
  app.use('/api', (_request, _response, next) =>
    next(new Trouble(404, 'not-found', 'There is nothing at this address.')),
  );
  if (pagesDir && existsSync(pagesDir)) {
    app.use(express.static(pagesDir, { index: false, maxAge: '1h' }));
    app.get('/{*page}', (_request, response) => response.sendFile(join(pagesDir, 'index.html')));
  }
  app.use(errorHandler(log));
  return app;
}

function logRequests(log: Logger): express.RequestHandler {
  return (request, response, next) => {
    const started = performance.now();
    response.on('finish', () => {
      const { method, originalUrl } = request;
      log.debug({
        method,
        url: originalUrl,
        status: response.statusCode,
        ms: Math.round(performance.now() - started),
      });
    });
    next();
  };
}
