import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Problem } from './problem.js';

const LOST = new Set(['ECONNREFUSED', 'ECONNRESET', 'PROTOCOL_CONNECTION_LOST', 'EPIPE', 'ETIMEDOUT', 'ER_SERVER_SHUTDOWN', 'ER_CONNECTION_KILLED']);

/** Every error leaves as problem details that say what, where and what to do. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('door');

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const { originalUrl } = http.getRequest<Request>();
    const response = http.getResponse<Response>();
    if (response.headersSent) return;
    const problem = this.problemOf(error, originalUrl);
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem.body(originalUrl)));
  }

  private problemOf(error: unknown, url: string): Problem {
    if (error instanceof Problem) return error;
    if (error instanceof HttpException) return ofHttp(error);
    const { status } = error as { status?: number };
    if (status && status >= 400 && status < 500) return new Problem(status, 'bad-request', 'Bad request', (error as Error).message);
    const code = (error as { code?: string; driverError?: { code?: string } }).code ?? (error as { driverError?: { code?: string } }).driverError?.code;
    if (code && LOST.has(code)) return new Problem(503, 'database', 'The database is away', 'Nothing was changed. The page keeps its changes and sends them again by itself.');
    this.log.error(`${url}: ${error instanceof Error ? error.stack : String(error)}`);
    return new Problem(500, 'fault', 'A fault in Yunta', 'Nothing was changed. The program has noted what went wrong; please try again.');
  }
}

const ofHttp = (error: HttpException): Problem => {
  const body = error.getResponse() as string | { message?: string | string[] };
  const status = error.getStatus();
  const said = typeof body === 'string' ? body : Array.isArray(body.message) ? body.message.join('; ') : body.message ?? error.message;
  if (status === 413) return new Problem(413, 'too-large', 'Too large', 'The request is larger than 4 MB. Send the change in smaller parts.');
  if (status === 400 && /JSON|Unexpected (token|end)/.test(said)) return new Problem(400, 'not-json', 'Not JSON', `The request is not JSON (${said}). Send a JSON document.`);
  return new Problem(status, status === 404 ? 'not-found' : 'bad-request', status === 404 ? 'Not found' : 'Bad request', said);
};
