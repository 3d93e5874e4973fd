import { hasFields } from './keys.js';

/** What a fault says of itself, whatever was thrown. */
export const saidBy = (fault: unknown): string =>
  hasFields(fault) && typeof fault.message === 'string' ? fault.message : String(fault);
