import { DEEPEST } from '@yunta/core/rig/limits';
import type { NextFunction, Request, Response } from 'express';
import { Problem } from './problem.js';

/** A request puts a record and a list around a part. */
const DEEPEST_BODY = DEEPEST + 3;

/**
 * Whether more than so many lists and records stand inside one another; told without going down into them, however
 * deep they are.
 */
export const isDeeperThan = (data: unknown, most: number): boolean => {
  let level = [data];
  for (let depth = 0; level.length; depth += 1) {
    level = level.filter((one): one is object => typeof one === 'object' && one !== null);
    if (level.length && depth >= most) return true;
    level = level.flatMap((one) => Object.values(one as object));
  }
  return false;
};

/**
 * What asks for something to be done must be a record, and no deeper than can be kept: whatever reads it further may
 * then go down into it.
 */
export const sensibleBody = (request: Request, _: Response, next: NextFunction): void => {
  const { body, method } = request;
  if (method === 'GET' || method === 'HEAD') return next();
  if (method === 'DELETE' && body === undefined) return next();
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    return next(
      new Problem(400, 'bad-request', 'Bad request', 'The body of the request is not a record. Send a JSON object.'),
    );
  if (isDeeperThan(body, DEEPEST_BODY))
    return next(
      new Problem(400, 'too-deep', 'Too deep', `More than ${DEEPEST_BODY} lists stand inside one another. Nest fewer.`),
    );
  next();
};
