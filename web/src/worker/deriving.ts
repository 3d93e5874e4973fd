import { Answers } from './answers.js';
import { Asking } from './asking.js';
import { BenchPlay } from './bench-play.js';
import { Cards } from './cards.js';
import { Held } from './held.js';
import { Night } from './night.js';

/** Lives in the worker: the rig as it is held there, and what can be asked of it. */
export class Deriving {
  readonly held = new Held();
  readonly answers = new Answers(this.held);
  readonly asking = new Asking(this.held);
  readonly night = new Night(this.held);
  readonly bench = new BenchPlay(this.held, this.asking);
  readonly cards = new Cards();
}
