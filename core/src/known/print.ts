import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

const PRINT_BYTES = 12;

/** Any value as text, with the keys of records in order: equal values give equal text. */
export const inKeyOrder = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );

/** Tells texts apart by 24 digits. SHA-256 (FIPS 180-4), cut. */
export const printOf = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)).slice(0, PRINT_BYTES));
