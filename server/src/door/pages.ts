import type { NestExpressApplication } from '@nestjs/platform-express';
import express, { type Request, type Response } from 'express';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { isApi } from './same-origin.js';

const A_YEAR = 31_536_000;

/**
 * Serves the built pages: files under /assets for ever (their names change with their contents), every other address
 * the one page.
 */
export const servePages = (app: NestExpressApplication, folder: string): void => {
  if (!existsSync(join(folder, 'index.html'))) return;
  app.use(
    '/assets',
    express.static(join(folder, 'assets'), { immutable: true, maxAge: A_YEAR * 1000, fallthrough: true, index: false }),
  );
  app.use('/assets', (_: Request, response: Response) => {
    response.status(404).type('text/plain').send('There is no such file.');
  });
  app.use(express.static(folder, { index: false, maxAge: 0 }));
  app.use((request: Request, response: Response, next: () => void) => {
    if (isApi(request.path)) return next();
    if (request.method !== 'GET' && request.method !== 'HEAD') return next();
    response.setHeader('cache-control', 'no-cache');
    response.sendFile(join(folder, 'index.html'));
  });
};
