import type { Check } from './check.js';
import { crosstalk } from './midi/crosstalk.js';
import { numberShift } from './midi/number-shift.js';
import { conflict } from './order/conflict.js';
import { handMove } from './recall/hand-move.js';
import { moveLeftOn } from './recall/move-left-on.js';
import { toggle } from './recall/toggle.js';
import { unpinned } from './recall/unpinned.js';
import { direction } from './wire/direction.js';
import { ring } from './wire/ring.js';
import { silent } from './wire/silent.js';
import { spareReturn } from './wire/spare-return.js';
import { unused } from './wire/unused.js';

/** Every check, sorted by code. */
export const CHECKS: readonly Check[] = [crosstalk, numberShift, conflict, handMove, moveLeftOn, toggle, unpinned, direction, ring, silent, spareReturn, unused];
