import { resolve } from 'node:path';
import { createApp } from './create-app.js';
import { failing } from './door/failing.js';

/** To whoever started it: it cannot serve as things are, and has said why; starting it again will not help. */
const CANNOT_SERVE = 78;

/** Serves Yunta on 127.0.0.1. `./yunta start` sets the environment: YUNTA_PORT, YUNTA_DEMO and the database. */
const serve = async (): Promise<void> => {
  const app = await createApp({
    pages: resolve(import.meta.dirname, '../../web/dist'),
    demo: process.env.YUNTA_DEMO !== '0',
  });
  await app.listen(Number(process.env.YUNTA_PORT ?? 4747), '127.0.0.1');
  const address = app.getHttpServer().address() as { port: number };
  // Whoever started it is gone: it does not stay behind and hold the port.
  process.on('disconnect', () => void app.close().then(() => process.exit(0)));
  process.send?.({ ready: address.port });
  console.log(`Yunta is at http://127.0.0.1:${address.port}`);
};

await serve().catch((error: unknown) => {
  const known = failing(error);
  console.error(known ? `${known.title}. ${known.detail}` : error);
  process.exit(known ? CANNOT_SERVE : 1);
});
