import { API_VERSION, API_VERSION_HEADER, MAX_BODY } from '@zealous/contracts';
import compression from 'compression';
import express, { type Express } from 'express';
import packedStatic from 'express-static-gzip';
import helmet from 'helmet';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { constants } from 'node:zlib';
import pino from 'pino';
import pinoHttp from 'pino-http';
import type { DataSource } from 'typeorm';
import { linkRouter, Links } from '../link';
import { machinesRouter } from '../machines';
import { listOrders, ordersRouter, type Derived } from '../orders';
import { shopRouter } from '../shop';
import { firstPage } from './firstPage';
import { ownHost, soundAddress, soundBody } from './guards';
import { problemHandler, unknownRoute } from './problem';

export interface AppOptions {
  /** Folder of the exported web app; without it only the API is served. */
  readonly webRoot?: string;
  readonly logLevel?: string;
  /** Names under which it is reached beside loopback. */
  readonly hosts?: readonly string[];
  /** Told by the health route: which server this is, so that nobody talks to another by mistake. */
  readonly instance?: string;
  /** The lines to the machines; made here when absent. */
  readonly links?: Links;
}

const YEAR_S = 31_536_000;
/** Answers are packed once each: quick before small. */
const QUICK_QUALITY = 3;

/** App and API on one origin. */
export function createApp(
  db: DataSource,
  derived: Derived,
  { webRoot, logLevel = 'info', hosts = [], instance, links = new Links(db) }: AppOptions = {},
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(ownHost(hosts));
  app.use(
    pinoHttp({
      logger: pino({ level: logLevel }),
      quietReqLogger: true,
      customLogLevel: (_q, r, e) => (e && r.statusCode === 500 ? 'error' : 'debug'),
    }),
  );
  app.use(
    helmet({
      // Plain HTTP on loopback: nothing to upgrade to.
      contentSecurityPolicy: {
        directives: {
          'upgrade-insecure-requests': null,
          // The interface sets its styles as it runs; everything else comes from here.
          'style-src': ["'self'", "'unsafe-inline'"],
          'font-src': ["'self'", 'data:'],
          'worker-src': ["'self'", 'blob:'],
          // Pictures that are still on their way to the server are shown from the device.
          'img-src': ["'self'", 'data:', 'blob:'],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  const api = express.Router();
  api.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: QUICK_QUALITY } } }));
  api.use((_request, response, next) => {
    response.set(API_VERSION_HEADER, API_VERSION);
    next();
  });
  api.use(soundAddress);
  api.use(express.json({ limit: MAX_BODY }), soundBody);
  api.get('/health', async (_request, response) => {
    await db.query('select 1');
    response.json({ ok: true, ...(instance === undefined ? {} : { instance }) });
  });
  api.use('/machines', machinesRouter(db));
  api.use('/link', linkRouter(links));
  api.use('/orders', ordersRouter(db, derived));
  api.use('/shop', shopRouter(db));
  api.use(unknownRoute);
  app.use('/api', api);
  if (webRoot !== undefined) {
    // For what the build has not packed, and for readers that do not take it so.
    app.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: QUICK_QUALITY } } }));
    const packed = { enableBrotli: true, orderPreference: ['br'], index: false };
    for (const folder of ['_expo', 'assets']) {
      const serveStatic = { maxAge: YEAR_S * 1000, immutable: true };
      app.use(`/${folder}`, packedStatic(join(webRoot, folder), { ...packed, serveStatic }));
      // What an older page asks for and is no more: said plainly, without a path of this machine.
      app.use(`/${folder}`, unknownRoute);
    }
    app.get('/', async (request, response, next) => {
      try {
        // Read each time, as the pages below are: the application may be built anew under a server at work.
        const template = await readFile(join(webRoot, 'first.html'), 'utf8');
        const orders = await listOrders(db, derived, { status: 'open' });
        response
          .set('Cache-Control', 'no-store')
          .type('html')
          .send(firstPage(template, orders, Date.now()));
      } catch (error) {
        // The application comes all the same, and says itself what is the matter.
        request.log.warn(error, 'the bench could not be drawn');
        next();
      }
    });
    // Asked for afresh each time: a new version is found by them.
    app.use(
      packedStatic(webRoot, {
        ...packed,
        serveStatic: { maxAge: 0, setHeaders: (r) => r.setHeader('Cache-Control', 'no-cache') },
      }),
    );
    app.get('/{*splat}', (_request, response) => {
      response.sendFile(join(webRoot, 'index.html'), { maxAge: 0 });
    });
  }
  app.use(problemHandler);
  return app;
}
