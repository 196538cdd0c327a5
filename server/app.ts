import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Express } from 'express';
import express from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { openApi } from '../contracts/openapi';
import { Trouble } from './problem';
import { artworkRoutes } from './routes/artwork';
import { calibrationRoutes } from './routes/calibrations';
import { cutRoutes } from './routes/cuts';
import { errorHandler, sameSiteOnly } from './routes/guard';
import { mount } from './routes/mount';
import { orderRoutes } from './routes/orders';
import { shopRoutes } from './routes/shop';
import type { CutServices } from './services/cuts';

export interface AppOptions {
  readonly pagesDir?: string;
  /** How many files one sender may bring in. */
  readonly filesPerMinute?: number;
}

/** The whole application as an Express app; it listens nowhere by itself. */
export function createApp(
  services: CutServices,
  log: Logger,
  { pagesDir, filesPerMinute = 60 }: AppOptions,
): Express {
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
  const handlers = {
    ...shopRoutes(services),
    ...artworkRoutes(services),
    ...orderRoutes(services),
    ...cutRoutes(services),
    ...calibrationRoutes(services),
  };
  mount(app, handlers, filesPerMinute);
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
