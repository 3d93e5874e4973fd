import type { NextFunction, Request, Response } from 'express';
import { Problem } from './problem.js';

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i;

/**
 * Whether the router will find a request among the questions of the API: it takes upper and lower case for the same.
 */
export const isApi = (path: string): boolean => /^\/+api(\/|$)/i.test(path);

/** Only pages that this very program served may ask: a foreign Host (a rebound name) or Origin is turned away. */
export const sameOriginOnly = (request: Request, _: Response, next: NextFunction): void => {
  const { host, origin } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const foreignHost = !host || !LOOPBACK.test(host);
  const foreignOrigin = origin !== undefined && origin !== `http://${host}`;
  const foreignSite = site !== undefined && site !== 'same-origin' && site !== 'none';
  if (foreignHost || foreignOrigin || (foreignSite && isApi(request.path))) {
    return next(
      new Problem(
        403,
        'foreign',
        'Not from here',
        'Yunta answers only to its own pages on this machine. Open it at the address that ./yunta start printed.',
      ),
    );
  }
  next();
};
