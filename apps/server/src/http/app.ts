import { MAX_BODY } from '@zealous/contracts';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { join } from 'node:path';
import { constants } from 'node:zlib';
import pino from 'pino';
import pinoHttp from 'pino-http';
import type { DataSource } from 'typeorm';
import { machinesRouter } from '../machines';
import { ordersRouter } from '../orders';
import { shopRouter } from '../shop';
import { problemHandler, unknownRoute } from './problem';

export interface AppOptions {
  /** Folder of the exported web app; without it only the API is served. */
  readonly webRoot?: string;
  readonly logLevel?: string;
}

const YEAR_S = 31_536_000;
/** The app's chunks are fetched once a build: worth a tenth of a second of packing for a tenth of their size. */
const BROTLI_QUALITY = 9;

/** App and API on one origin. */
export function createApp(db: DataSource, { webRoot, logLevel = 'info' }: AppOptions = {}): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    pinoHttp({
      logger: pino({ level: logLevel }),
      quietReqLogger: true,
      customLogLevel: (_q, r, e) => (e || r.statusCode >= 500 ? 'error' : 'debug'),
    }),
  );
  app.use(
    helmet({
      // Plain HTTP on loopback: nothing to upgrade to.
      contentSecurityPolicy: {
        directives: {
          'upgrade-insecure-requests': null,
          'worker-src': ["'self'", 'blob:'],
          // Pictures that are still on their way to the server are shown from the device.
          'img-src': ["'self'", 'data:', 'blob:'],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } } }));
  const api = express.Router();
  api.use(express.json({ limit: MAX_BODY }));
  api.get('/health', async (_request, response) => {
    await db.query('select 1');
    response.json({ ok: true });
  });
  api.use('/machines', machinesRouter(db));
  api.use('/orders', ordersRouter(db));
  api.use('/shop', shopRouter(db));
  api.use(unknownRoute);
  app.use('/api', api);
  if (webRoot !== undefined) {
    app.use(
      '/_expo',
      express.static(join(webRoot, '_expo'), { fallthrough: false, maxAge: YEAR_S * 1000, immutable: true }),
    );
    app.use(
      '/assets',
      express.static(join(webRoot, 'assets'), { fallthrough: false, maxAge: YEAR_S * 1000, immutable: true }),
    );
    app.use(express.static(webRoot, { index: false, maxAge: 0 }));
    app.get('/{*splat}', (_request, response) => {
      response.sendFile(join(webRoot, 'index.html'), { maxAge: 0 });
    });
  }
  app.use(problemHandler);
  return app;
}
