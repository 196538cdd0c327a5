import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Express, RequestHandler } from 'express';
import express from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { openApi } from '../contracts/openapi';
import { createLookout } from './cutters/look';
import type { LogInServices } from './people/logIn';
import { Trouble } from './problem';
import { artworkRoutes } from './routes/artwork';
import { calibrationRoutes } from './routes/calibrations';
import { cutRoutes } from './routes/cuts';
import { errorHandler, notTooMany, sameSiteOnly } from './routes/guard';
import { knownHostsOnly, LOOPBACK } from './routes/hosts';
import { mount } from './routes/mount';
import { orderRoutes } from './routes/orders';
import { peopleRoutes } from './routes/people';
import { asking, refuseUnless, whoAsks } from './routes/rights';
import { shopRoutes } from './routes/shop';
import { usageRoutes } from './routes/usage';
import type { CutServices } from './services/cuts';

export interface AppOptions {
  readonly pagesDir?: string;
  /** How many files one sender may bring in. */
  readonly filesPerMinute?: number;
  /** Names and addresses that it goes by, beside this machine's own. */
  readonly hosts?: readonly string[];
  /** Addresses of proxies in front of it, whose word on where a request came from counts. */
  readonly proxies?: readonly string[];
}

/** What the application stands on. */
export interface AppServices extends CutServices, LogInServices {
  readonly sessions: RequestHandler;
}

/** The whole application as an Express app; it listens nowhere by itself. */
export function createApp(
  { sessions, ...services }: AppServices,
  log: Logger,
  { pagesDir, filesPerMinute = 60, hosts = [], proxies = [] }: AppOptions,
): Express {
  const app = express();
  app.disable('x-powered-by');
  if (proxies.length > 0) app.set('trust proxy', proxies);
  app.use(knownHostsOnly([...LOOPBACK, ...hosts]));
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
  app.use('/api', notTooMany(), sessions, whoAsks(services.db));
  // to describe all of it takes as long as to start all else
  let description: object | undefined;
  app.get('/api/openapi.json', (_request, response) => {
    refuseUnless('tablet', asking(response));
    response.json((description ??= openApi()));
  });
  const handlers = {
    ...shopRoutes,
    ...usageRoutes,
    ...artworkRoutes,
    ...orderRoutes,
    ...cutRoutes,
    ...calibrationRoutes,
    ...peopleRoutes,
  };
  mount(app, handlers, { ...services, lookout: createLookout(services.db) }, filesPerMinute);
  app.use('/api', (_request, response) => {
    refuseUnless('tablet', asking(response));
    throw new Trouble(404, 'not-found', 'There is nothing at this address.');
  });
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
