import { existsSync } from 'node:fs';
import { join } from 'node:path';
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

/** Serves the built app with isolation and a strict content policy, the stock stand-in, the demo and a health check. */
export function makeApp(folders: Folders, options: { openDemo: boolean }): Express {
  const app = express();
  app.disable('x-powered-by');
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

  app.get('/health', (_request, response) => void response.json({ ok: true, app: existsSync(join(folders.app, 'index.html')) }));
  app.get('/settings.json', (_request, response) => void response.json({ openDemo: options.openDemo }));
  app.use('/library', express.static(folders.library, { index: false, dotfiles: 'deny', fallthrough: false }));
  app.use('/demo', express.static(folders.demo, { index: false, dotfiles: 'deny', fallthrough: false }));
  app.use('/assets', express.static(join(folders.app, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(folders.app, { index: 'index.html', dotfiles: 'deny' }));
  app.use((request, response, next) => {
    if (request.method !== 'GET' || !request.accepts('html')) return next();
    response.sendFile(join(folders.app, 'index.html'));
  });
  app.use((error: { status?: number; message?: string }, _request: express.Request, response: express.Response, _next: express.NextFunction) => {
    const status = error.status ?? 500;
    response.status(status).type('text').send(status === 404 ? 'Not found.' : `The server could not answer: ${error.message ?? 'unknown reason'}.`);
  });
  return app;
}
