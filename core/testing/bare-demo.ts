import { islandRun } from '../src/demo/island-run.js';
import { removeBoard } from '../src/edits/boards.js';
import type { Rig } from '../src/rig/rig.js';
import { after } from './after.js';

/** The demo before anything stands on a board. */
export const bareDemo = (): Rig =>
  ['Shelf beneath', 'Floor board'].reduce((rig, board) => after(rig, removeBoard(rig, board)), islandRun());
