import { statfsSync } from 'node:fs';
import { Problem } from './problem.js';

/** What a database or the system says when something stands in the way, by its code. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'EPIPE',
  'ETIMEDOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_CON_COUNT_ERROR',
  'ER_ABORTING_CONNECTION',
]);
const BUSY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_QUERY_INTERRUPTED', 'ER_LOCK_TABLE_FULL']);
const FULL = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_TEMP_FILE_WRITE_FAILURE', 'ENOSPC', 'EDQUOT']);
const DAMAGED = new Set([
  'ER_CRASHED_ON_USAGE',
  'ER_CRASHED_ON_REPAIR',
  'ER_NOT_KEYFILE',
  'ER_INDEX_CORRUPT',
  'ER_TABLE_CORRUPT',
  'ER_TABLESPACE_MISSING',
  'ER_TABLESPACE_DISCARDED',
  'ER_NO_SUCH_TABLE',
  'ER_NO_SUCH_TABLE_IN_ENGINE',
  'ER_GET_ERRNO',
  'ER_ERROR_ON_READ',
  'ER_FILE_CORRUPT',
  'ER_FILE_NOT_FOUND',
  'ER_TABLE_DEF_CHANGED',
  'ER_ILLEGAL_HA',
  'ER_UNKNOWN_STORAGE_ENGINE',
]);
const TOO_LARGE = new Set(['ER_NET_PACKET_TOO_LARGE', 'ER_TOO_BIG_ROWSIZE']);
const NO_ROOM = /errno: 28|error 28|No space left/i;

interface Coded {
  readonly code?: string;
  readonly message?: string;
  readonly driverError?: { readonly code?: string; readonly sqlMessage?: string };
}

const home = (): string => process.env.YUNTA_HOME ?? 'the folder of Yunta';
/** With less than this the database cannot go on, nor be started again. */
const NEEDED = 40 * 1024 * 1024;

/** A database that is away may be so because it has no room: the disk is asked, where the folder is known. */
const isFull = (): boolean => {
  if (!process.env.YUNTA_HOME) return false;
  try {
    const { bavail, bsize } = statfsSync(process.env.YUNTA_HOME);
    return bavail * bsize < NEEDED;
  } catch {
    return false;
  }
};

/**
 * The problem behind an error of the database or the system, in words and with what to do. Away, busy and full pass by
 * themselves or by somebody's doing, so that what was sent may be sent again: 503.
 * @returns undefined when it is none of these
 */
export const failing = (error: unknown): Problem | undefined => {
  const { code = '', message = '', driverError } = (error ?? {}) as Coded;
  const codes = [code, driverError?.code ?? ''];
  const is = (set: ReadonlySet<string>) => codes.some((c) => set.has(c));
  if (is(FULL) || NO_ROOM.test(message) || (is(AWAY) && isFull()))
    return new Problem(
      503,
      'disk-full',
      'The disk is full',
      `Free some space where ${home()} lies; what waits is then saved by itself.`,
    );
  if (is(AWAY))
    return new Problem(
      503,
      'database',
      'The database is away',
      'Nothing was changed. The page keeps its changes and sends them again by itself.',
    );
  if (is(BUSY))
    return new Problem(503, 'busy', 'The database is busy', 'Nothing was changed. The page sends it again by itself.');
  if (is(DAMAGED))
    return new Problem(
      503,
      'damaged',
      'The data is damaged',
      'A table cannot be read; the disk may be failing. Stop Yunta (./yunta stop) and go back to a backup: ./yunta restore lists them.',
    );
  if (is(TOO_LARGE))
    return new Problem(
      413,
      'too-large',
      'Too large',
      'The change is larger than the database takes. Make it in smaller parts.',
    );
  return undefined;
};
