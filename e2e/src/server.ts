import { fork, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';
import { createServer } from 'node:net';
import { createConnection } from 'mysql2/promise';

const root = resolve(__dirname, '../..');

export const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

/** The real program on an empty database of its own, as `./yunta start` runs it. */
export class TestServer {
  private child: ChildProcess | undefined;
  private copies = 0;

  private constructor(
    readonly port: number,
    readonly database: string,
  ) {}

  static async start(name: string): Promise<TestServer> {
    if (!process.env.YUNTA_DB_SOCKET) throw new Error('These tests need the database that ./yunta test starts.');
    const server = new TestServer(await freePort(), `yunta_e2e_${name}_${process.pid}`);
    await server.sql(`DROP DATABASE IF EXISTS \`${server.database}\``);
    await server.sql(`CREATE DATABASE \`${server.database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
    await server.up();
    return server;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async sql(text: string): Promise<unknown> {
    const connection = await createConnection({
      socketPath: process.env.YUNTA_DB_SOCKET ?? '',
      user: process.env.YUNTA_DB_USER ?? 'yunta',
      password: process.env.YUNTA_DB_PASSWORD ?? '',
    });
    try {
      return (await connection.query(text))[0];
    } finally {
      await connection.end();
    }
  }

  async up(): Promise<void> {
    this.child = fork(resolve(root, 'server/dist/main.js'), [], {
      env: { ...process.env, YUNTA_PORT: String(this.port), YUNTA_DB_NAME: this.database },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      execArgv: ['--no-warnings'],
    });
    await new Promise<void>((ready, lost) => {
      this.child!.once('message', () => ready());
      this.child!.once('exit', (code) => lost(new Error(`the server ended with ${code}`)));
    });
  }

  /**
   * A copy of a rig that nobody touched, so that what one test did to it, or left half done, is not met by the next.
   * @returns the address of its rooms, without the slash
   */
  async fresh(rig: string): Promise<string> {
    return this.opened(rig, await (await fetch(`${this.url}/api/rigs/${rig}/file`)).text());
  }

  /** A rig from its file. @returns the address of its rooms, without the slash */
  async opened(name: string, file: string): Promise<string> {
    this.copies += 1;
    const id = `${name}-${this.copies}`;
    const made = await fetch(`${this.url}/api/rigs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id, change: `copy-${id}`, file, label: 'From a rig file' }),
    });
    if (!made.ok) throw new Error(`no rig of ${name}: ${await made.text()}`);
    return `${this.url}/rig/${id}`;
  }

  async down(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill(signal);
    await gone;
  }

  async stop(): Promise<void> {
    await this.down();
    await this.sql(`DROP DATABASE IF EXISTS \`${this.database}\``);
  }
}
