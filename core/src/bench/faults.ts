import type { Cable } from '../rig/hookup.js';
import { ref, splitRef, theRef, type Id, type Ref } from '../rig/ids.js';
import type { Bench } from './bench.js';

const bothPoles = (end: Ref): readonly Ref[] => [end, theRef(`${end}:ring`)];

/**
 * What breaks on stage, done to a bench: cables pulled and exchanged, boxes without a supply, a wrong channel, a
 * spare.
 */
export class Faults {
  constructor(private readonly bench: Bench) {}

  /** A cable comes out at both ends, whatever it carries. */
  pull({ ends: [a, b] }: Pick<Cable, 'ends'>): void {
    this.bench.note({
      is: 'fault',
      at: this.bench.time.now,
      what: `a cable is pulled: ${this.jackName(a)} to ${this.jackName(b)}`,
    });
    const closed = [a, b].flatMap(bothPoles).filter((end) => this.bench.contactAt(end));
    this.bench.otherEnd.delete(a);
    this.bench.otherEnd.delete(b);
    for (const end of closed) this.contactIs(end, false);
    this.bench.time.pass();
  }

  /** A contact input finds itself closed or open, and so does whatever a passive lead carries it on to. */
  private contactIs(input: Ref, closed: boolean): void {
    const { device, name } = splitRef(input);
    const box = this.bench.boxes.get(device);
    if (!box) return;
    box.contactChanged(name, closed);
    for (const end of this.bench.wires
      .passesOn(box, name)
      .flatMap((next) => this.bench.contactsFrom(ref(device, next))))
      this.bench.boxes.get(splitRef(end).device)?.contactChanged(splitRef(end).name, closed);
  }

  /** A cable goes in where it belongs; what sat in its jacks comes out. */
  plug({ ends: [a, b] }: Pick<Cable, 'ends'>): void {
    for (const end of [a, b]) {
      const other = this.bench.otherEnd.get(end);
      if (other && other !== a && other !== b) this.pull({ ends: [end, other] });
    }
    this.bench.note({
      is: 'fault',
      at: this.bench.time.now,
      what: `a cable is plugged in: ${this.jackName(a)} to ${this.jackName(b)}`,
    });
    this.join(a, b);
    this.bench.time.pass();
  }

  private join(a: Ref, b: Ref): void {
    this.bench.otherEnd.set(a, b);
    this.bench.otherEnd.set(b, a);
    for (const end of [a, b].flatMap(bothPoles)) if (this.bench.contactAt(end)) this.contactIs(end, true);
  }

  /** A box loses its supply and stays dark. */
  darken(device: Id<'device'>): void {
    const box = this.bench.boxes.get(device);
    if (!box || box.isDark) return;
    this.bench.note({ is: 'fault', at: this.bench.time.now, what: `${box.device.name} loses its supply` });
    box.goDark();
    this.bench.time.pass();
  }

  /** Its supply is back, and it wakes. */
  light(device: Id<'device'>): void {
    if (this.bench.boxes.get(device)?.isDark) this.bench.powerCycle(device);
  }

  /** Two cables that come to one box are plugged into each other's jacks. */
  swap(one: Pick<Cable, 'ends'>, other: Pick<Cable, 'ends'>, at: Id<'device'>): void {
    const here = ({ ends }: Pick<Cable, 'ends'>) => ends.find((e) => splitRef(e).device === at);
    const far = ({ ends }: Pick<Cable, 'ends'>) => ends.find((e) => splitRef(e).device !== at);
    const [jackOne, jackOther, farOne, farOther] = [here(one), here(other), far(one), far(other)];
    if (!jackOne || !jackOther || !farOne || !farOther) return;
    this.pull(one);
    this.pull(other);
    for (const [a, b] of [
      [jackOne, farOther],
      [jackOther, farOne],
    ] as const) {
      this.bench.note({
        is: 'fault',
        at: this.bench.time.now,
        what: `plugged wrong: ${this.jackName(b)} to ${this.jackName(a)}`,
      });
      this.join(a, b);
    }
    this.bench.time.pass();
  }

  /** Somebody turned its channel switch. */
  mischannel(device: Id<'device'>, channel: number): void {
    const box = this.bench.boxes.get(device);
    if (!box?.device.midi) return;
    this.bench.note({ is: 'fault', at: this.bench.time.now, what: `${box.device.name} listens on channel ${channel}` });
    box.listenOn(channel);
  }

  /**
   * Its spare is put in its place: the same box, with the programs that it left the factory with, none of them known
   * here.
   */
  spare(device: Id<'device'>): void {
    const box = this.bench.boxes.get(device);
    if (!box) return;
    this.bench.note({ is: 'fault', at: this.bench.time.now, what: `${box.device.name} is replaced by its spare` });
    for (const [key, program] of this.bench.stored) if (program.device === device) this.bench.stored.delete(key);
    box.wake(() => undefined);
    box.begin();
    this.bench.time.pass();
  }

  private jackName(end: Ref): string {
    const { device, name } = splitRef(end);
    return `${this.bench.boxes.get(device)?.device.code ?? device} ${name}`;
  }
}
