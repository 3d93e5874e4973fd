import type { NestExpressApplication } from '@nestjs/platform-express';
import { createConnection } from 'mysql2/promise';
import { createApp } from './create-app.js';

const connect = () =>
  createConnection({
    socketPath: process.env.YUNTA_DB_SOCKET ?? '',
    user: process.env.YUNTA_DB_USER ?? 'yunta',
    password: process.env.YUNTA_DB_PASSWORD ?? '',
  });

/** The real application on an empty database of its own; `./yunta test` starts MariaDB and says where it is. */
export const testApp = async (
  name: string,
  demo = true,
): Promise<{
  readonly app: NestExpressApplication;
  readonly database: string;
  readonly close: () => Promise<void>;
}> => {
  if (!process.env.YUNTA_DB_SOCKET) throw new Error('These tests need the database that ./yunta test starts.');
  const database = `yunta_${name}_${process.pid}`;
  const connection = await connect();
  await connection.query(`DROP DATABASE IF EXISTS \`${database}\``);
  await connection.query(`CREATE DATABASE \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const app = await createApp({ database, demo, quiet: true });
  await app.init();
  return {
    app,
    database,
    close: async () => {
      await app.close();
      await connection.query(`DROP DATABASE \`${database}\``);
      await connection.end();
    },
  };
};
