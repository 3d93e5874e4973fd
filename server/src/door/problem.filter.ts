import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Request, Response } from 'express';
import { failing } from './failing.js';
import { Problem } from './problem.js';

/** Every error leaves as problem details that say what, where and what to do; nothing of the inside goes with it. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('door');

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const { originalUrl, method } = http.getRequest<Request>();
    const response = http.getResponse<Response>();
    if (response.headersSent) return;
    const problem = this.problemOf(error, `${method} ${originalUrl}`);
    const body = JSON.stringify(problem.body(originalUrl));
    response.status(problem.status).type('application/problem+json').send(body);
  }

  private problemOf(error: unknown, asked: string): Problem {
    if (error instanceof Problem) return error;
    if (error instanceof HttpException) return ofHttp(error);
    const { status, type } = (error ?? {}) as { status?: number; type?: string };
    if (status && status >= 400 && status < 500) return ofBody(status, type ?? '', error as Error);
    const known = failing(error);
    if (known) return known;
    this.log.error(`${asked}: ${error instanceof Error ? error.stack : String(error)}`);
    return new Problem(
      500,
      'fault',
      'A fault in Yunta',
      'Nothing was changed. The program has noted what went wrong; please try again.',
    );
  }
}

const tooLarge = () =>
  new Problem(
    413,
    'too-large',
    'Too large',
    'The request is larger than is taken at once: 64 MB. Send it in smaller parts.',
  );
const notJson = () => new Problem(400, 'not-json', 'Not JSON', 'The request is not JSON. Send a JSON document.');

const ofHttp = (error: HttpException): Problem => {
  const body = error.getResponse() as string | { message?: string | string[] };
  const status = error.getStatus();
  const said =
    typeof body === 'string'
      ? body
      : Array.isArray(body.message)
        ? body.message.join('; ')
        : (body.message ?? error.message);
  if (status === 413) return tooLarge();
  if (status === 400 && /JSON|Unexpected (token|end)/.test(said)) return notJson();
  if (status === 404) return new Problem(404, 'not-found', 'Not found', 'There is nothing at this address.');
  return new Problem(status, 'bad-request', 'Bad request', said);
};

/** What the reader of bodies and addresses turns away. */
const ofBody = (status: number, type: string, error: Error): Problem => {
  if (status === 413) return tooLarge();
  if (type === 'entity.parse.failed') return notJson();
  if (error instanceof URIError)
    return new Problem(
      400,
      'bad-request',
      'Bad request',
      'The address holds a % that is not followed by two hex digits.',
    );
  return new Problem(status, 'bad-request', 'Bad request', error.message);
};
