import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import { json } from 'express';
import helmet from 'helmet';
import { AppModule } from './app.module.js';
import { sensibleBody } from './door/body.js';
import { sameOriginOnly } from './door/same-origin.js';
import { servePages } from './door/pages.js';
import { makeReady } from './first-start.js';

export interface AppSettings {
  readonly database?: string;
  readonly pages?: string;
  readonly demo: boolean;
  readonly quiet?: boolean;
}

/** A rig file of the largest size, as text within JSON and with letters that take several bytes. */
const BODY_LIMIT = '64mb';

/**
 * Browsers open connections ahead of need and keep them: when it ends it closes them all, and pages send again what
 * was not answered.
 */
export const createApp = async ({ database, pages, demo, quiet }: AppSettings): Promise<NestExpressApplication> => {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.on(database), {
    logger: quiet ? false : ['error', 'warn'],
    bodyParser: false,
    abortOnError: false,
    forceCloseConnections: true,
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          fontSrc: ["'self'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(sameOriginOnly);
  app.use(compression());
  app.use('/api', json({ limit: BODY_LIMIT, type: () => true, strict: false }), sensibleBody);
  if (pages) servePages(app, pages);
  SwaggerModule.setup(
    'api/docs',
    app,
    () =>
      SwaggerModule.createDocument(
        app,
        new DocumentBuilder()
          .setTitle('Yunta')
          .setDescription('Every screen uses this API; so may you.')
          .setVersion('1')
          .build(),
      ),
    { jsonDocumentUrl: 'api/openapi.json', swaggerUiEnabled: false, raw: ['json'] },
  );
  app.enableShutdownHooks();
  await makeReady(app, demo);
  return app;
};
