import { type DataSourceOptions } from 'typeorm';
import { JournalEntry } from './journal/journal-entry.entity.js';
import { Person } from './people/person.entity.js';
import { FirstTables1764000000000 } from './migrations/1764000000000-first-tables.js';
import { Shelf1764100000000 } from './migrations/1764100000000-shelf.js';
import { Ticks1764200000000 } from './migrations/1764200000000-ticks.js';
import { Sizes1764300000000 } from './migrations/1764300000000-sizes.js';
import { PutAway1764400000000 } from './migrations/1764400000000-put-away.js';
import { DialCards1764500000000 } from './migrations/1764500000000-dial-cards.js';
import { Engagements1764600000000 } from './migrations/1764600000000-engagements.js';
import { Packing1764700000000 } from './migrations/1764700000000-packing.js';
import { Houses1764800000000 } from './migrations/1764800000000-houses.js';
import { Pulse } from './pulse.entity.js';
import { PART_ENTITIES } from './rigs/part.entities.js';
import { RigEntity } from './rigs/rig.entity.js';
import { ShelfBox } from './shelf/shelf-box.entity.js';

/**
 * Where the database is (a socket in a folder of our own; no port is open); the start and the test command say it in
 * the environment.
 */
export const databaseOptions = (database = process.env.YUNTA_DB_NAME ?? 'yunta'): DataSourceOptions => ({
  type: 'mariadb',
  socketPath: process.env.YUNTA_DB_SOCKET ?? '',
  username: process.env.YUNTA_DB_USER ?? 'yunta',
  password: process.env.YUNTA_DB_PASSWORD ?? '',
  database,
  charset: 'utf8mb4',
  timezone: 'Z',
  entities: [Person, RigEntity, JournalEntry, ShelfBox, Pulse, ...PART_ENTITIES],
  migrations: [
    FirstTables1764000000000,
    Shelf1764100000000,
    Ticks1764200000000,
    Sizes1764300000000,
    PutAway1764400000000,
    DialCards1764500000000,
    Engagements1764600000000,
    Packing1764700000000,
    Houses1764800000000,
  ],
  synchronize: false,
  poolSize: 10,
  extra: { connectTimeout: 5000 },
});
