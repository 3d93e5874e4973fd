import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { randomBytes } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import { notFound } from '../door/problem.js';
import type { ShowRequest } from './requests.js';
import { SCRIPT_PATH, SHOW_SCRIPT, showPage, withdrawnPage } from './show-page.js';

export interface Show {
  readonly token: string;
  /** Addresses by which others on the network reach it; none when this machine is on none. */
  readonly urls: readonly string[];
}

const USUAL_PORT = 4748;
const TOKEN_BYTES = 12;
const HEADERS = {
  'content-type': 'text/html; charset=utf-8',
  'cache-control': 'no-store',
  'content-security-policy':
    "default-src 'none'; script-src 'self'; connect-src 'self'; style-src 'unsafe-inline'; frame-ancestors 'none'",
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
};

const addresses = (): readonly string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((one) => one.family === 'IPv4' && !one.internal)
    .map((one) => one.address);

/**
 * Nights that others on the same network may look at. Nothing listens on the network before somebody shares one. The
 * door that opens then knows pages of shared nights and nothing else: no rig, no change, no list. It closes with Yunta.
 */
@Injectable()
export class ShowsService implements OnApplicationShutdown {
  private readonly shows = new Map<string, ShowRequest>();
  private door: Promise<Server> | undefined;

  async share(show: ShowRequest): Promise<Show> {
    const before = this.tokenOf(show.rig);
    const token = before ?? randomBytes(TOKEN_BYTES).toString('base64url');
    this.shows.set(token, show);
    return { token, urls: await this.urlsOf(token) };
  }

  /** @throws when it was withdrawn meanwhile */
  goOn(token: string, show: ShowRequest): void {
    if (!this.shows.has(token)) throw notFound('This show is not shared.');
    this.shows.set(token, show);
  }

  withdraw(token: string): void {
    this.shows.delete(token);
  }

  async sharedOf(rig: string): Promise<Show | undefined> {
    const token = this.tokenOf(rig);
    return token === undefined ? undefined : { token, urls: await this.urlsOf(token) };
  }

  async onApplicationShutdown(): Promise<void> {
    const door = await this.door?.catch(() => undefined);
    door?.closeAllConnections();
    door?.close();
  }

  private tokenOf(rig: string): string | undefined {
    return [...this.shows].find(([, show]) => show.rig === rig)?.[0];
  }

  private async urlsOf(token: string): Promise<readonly string[]> {
    this.door ??= this.open();
    const { port } = (await this.door).address() as { port: number };
    return addresses().map((address) => `http://${address}:${port}/show/${token}`);
  }

  private open(): Promise<Server> {
    const server = createServer((request, response) => {
      if (request.method === 'GET' && request.url === SCRIPT_PATH)
        return void response.writeHead(200, { ...HEADERS, 'content-type': 'text/javascript' }).end(SHOW_SCRIPT);
      const token = request.method === 'GET' ? /^\/show\/([\w-]+)$/.exec(request.url ?? '')?.[1] : undefined;
      const show = token === undefined ? undefined : this.shows.get(token);
      response.writeHead(show ? 200 : 404, HEADERS).end(show ? showPage(show) : withdrawnPage());
    });
    const listen = (port: number): Promise<Server> =>
      new Promise((done, failed) => {
        server.once('error', failed);
        server.listen(port, '0.0.0.0', () => done(server));
      });
    // The usual port is easy to say; where it is taken any other serves as well.
    return listen(Number(process.env.YUNTA_SHOW_PORT ?? USUAL_PORT)).catch(() => listen(0));
  }
}
