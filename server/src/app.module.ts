import { Module, ValidationPipe, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_PIPE } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ChangesService } from './changes/changes.service.js';
import { databaseOptions } from './data-source.js';
import { failing } from './door/failing.js';
import { ProblemFilter } from './door/problem.filter.js';
import { HealthController } from './health.controller.js';
import { RigsController } from './rigs/rigs.controller.js';
import { RigStore } from './rigs/rig-store.js';
import { ShelfController } from './shelf/shelf.controller.js';
import { ShowsController } from './shows/shows.controller.js';
import { ShowsService } from './shows/shows.service.js';

@Module({})
export class AppModule {
  static on(database?: string): DynamicModule {
    return {
      module: AppModule,
      imports: [
        TypeOrmModule.forRoot({
          ...databaseOptions(database),
          migrationsRun: false,
          retryAttempts: 20,
          retryDelay: 500,
          toRetry: (e: Error) => failing(e)?.type === 'database',
        }),
      ],
      controllers: [RigsController, ShelfController, ShowsController, HealthController],
      providers: [
        RigStore,
        ChangesService,
        ShowsService,
        { provide: APP_FILTER, useClass: ProblemFilter },
        {
          provide: APP_PIPE,
          useValue: new ValidationPipe({ transform: true, whitelist: true, forbidNonWhitelisted: true }),
        },
      ],
    };
  }
}
