import { existsSync } from 'node:fs';
import { extname, join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';

export interface Folders {
  /** the built app */
  app: string;
  /** media that stands in for an outside stock library, with catalogue.json */
  library: string;
  /** the demo project file */
  demo: string;
}

const OWN_HOSTS = ['localhost', '127.0.0.1', '[::1]', '::1'];

/** Serves the built app with isolation and a strict content policy, the stock stand-in, the demo and a health check. */
export function makeApp(
  folders: Folders,
  options: {
    openDemo: boolean;
    /** names that it answers to beside those of this machine */ hosts?: readonly string[];
  },
): Express {
  const app = express();
  app.disable('x-powered-by');
  // a page of somebody else's whose name was made to point here gets nothing
  const hosts = new Set([...OWN_HOSTS, ...(options.hosts ?? [])]);
  app.use((request, response, next) => {
    if (hosts.has(request.hostname)) return next();
    response
      .status(421)
      .type('text')
      .send('This server answers only to its own name. Set HOST to serve under another one.');
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'], // the AAC encoder brings its worker as a blob
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'blob:', 'data:'],
          mediaSrc: ["'self'", 'blob:', 'data:'],
          connectSrc: ["'self'", 'blob:', 'data:'],
          fontSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
          formAction: ["'none'"],
        },
      },
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      strictTransportSecurity: false,
    }),
  );
  app.use(compression());

  app.get(
    '/health',
    (_request, response) => void response.json({ ok: true, app: existsSync(join(folders.app, 'index.html')) }),
  );
  app.get('/settings.json', (_request, response) => void response.json({ openDemo: options.openDemo }));
  app.use('/library', express.static(folders.library, { index: false, dotfiles: 'deny', fallthrough: false }));
  app.use('/demo', express.static(folders.demo, { index: false, dotfiles: 'deny', fallthrough: false }));
  app.use(
    '/assets',
    express.static(join(folders.app, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(folders.app, { index: 'index.html', dotfiles: 'deny' }));
  app.use((request, response, next) => {
    // addresses of the app have no ending; anything that has one is a file that is not there
    const page =
      (request.method === 'GET' || request.method === 'HEAD') &&
      request.accepts('html') &&
      extname(request.path) === '';
    if (page) return response.sendFile(join(folders.app, 'index.html'));
    next();
  });
  app.use((_request, response) => void response.status(404).type('text').send('Not found.'));
  app.use(
    (
      error: { status?: number; message?: string },
      _request: express.Request,
      response: express.Response,
      _next: express.NextFunction,
    ) => {
      const status = error.status ?? 500;
      response
        .status(status)
        .type('text')
        .send(status === 404 ? 'Not found.' : `The server could not answer: ${error.message ?? 'unknown reason'}.`);
    },
  );
  return app;
}
