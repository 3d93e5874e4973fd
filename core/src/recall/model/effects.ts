import type { Act } from '../../rig/act.js';
import { controlIn, relaysOf, type Actuator, type Device } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { valueFrom } from '../../rig/midi-manners.js';
import type { Program } from '../../rig/program.js';
import { keptIn } from '../../kept/kept.js';
import { thePart } from '../../rig/rig.js';
import type { Value, When } from '../../rig/value.js';
import type { Bearings } from '../actuate/bearings.js';
import { isOther, UNKNOWN, type Domains } from './domains.js';
import { ALWAYS, came, guardedBy, noteWhether, THEN_DOMAIN, thenOf, type DomainOf, type Guard } from './guards.js';
import { EAR_DOMAIN } from './memos.js';
import { OnTheWire, sharedOutputs, sharesWires } from './on-the-wire.js';
import { Plainness } from './plain.js';
import { type Shelf } from './shelf.js';
import { slotTiming } from '../actuate/slot-timing.js';
import type { SystemAct } from '../../prover/system.js';
import { MidiAnswers } from './answers.js';
import { Contacts, type ValueChange } from './contacts.js';
import { type NoteLoad, AT_ONCE, DEEPEST, type How } from './how.js';
import { Loads } from './loads.js';
import { theFirst, theEntry, theItem, surely } from '../../known/the.js';
import { memoryIn, theMemory } from '../../rig/box.js';

/**
 * Says in guarded acts on variables what follows when a box carries out its acts: on itself, over contacts and over
 * MIDI (docs/behaviour.md).
 * What is said once is kept, so that all slots that send the same message share the very same acts.
 */
export class Effects {
  readonly loads = new Loads(this);
  readonly answers = new MidiAnswers(this);
  readonly contacts = new Contacts(this);

  private readonly setsSaid: Map<Ref, Map<Value, readonly SystemAct[]>>[] = [];
  private readonly shared = new Map<Device, ReadonlySet<string>>();
  private readonly sharing = new Map<Ref, boolean>();
  readonly plain: Plainness;

  constructor(
    readonly b: Bearings,
    readonly domains: Domains,
    readonly shelf: Shelf,
    readonly noteLoad?: NoteLoad,
  ) {
    this.plain = new Plainness(b, domains, shelf);
  }

  isVariable(control: Ref): boolean {
    return this.domains.of.has(control);
  }

  /** Whether something else than what is passed on can come out of an output. */
  isShared(device: Device, jack: string): boolean {
    return keptIn(this.shared, device, () => sharedOutputs(device, this.shelf.values())).has(jack);
  }

  private readonly domainOf: DomainOf = (variable) =>
    this.domains.of.get(variable as Ref) ?? (variable.startsWith('ear:') ? EAR_DOMAIN : THEN_DOMAIN);

  guarded(when: readonly Guard[], acts: readonly SystemAct[]): readonly SystemAct[] {
    return guardedBy(when, acts, this.domainOf);
  }

  one(act: SystemAct, when: readonly Guard[]): readonly SystemAct[] {
    return this.guarded(when, [act]);
  }

  /** Conditions on variables; `undefined` when they cannot hold. */
  guards(device: Id<'device'>, when: When | undefined): readonly Guard[] | undefined {
    if (!when?.length) return ALWAYS;
    const guards: Guard[] = [];
    for (const fact of when) {
      if ('jack' in fact) {
        if (this.b.anatomy.wiring.plugged.has(ref(device, fact.jack)) !== fact.plugged) return undefined;
        continue;
      }
      const control = ref(device, fact.control);
      const domain = this.domains.of.get(control);
      if (!domain) {
        if (this.domains.allowed(fact, String(this.domains.constant(control))) !== 'yes') return undefined;
        continue;
      }
      const allows = domain.filter((v) => this.domains.allowed(fact, v) === 'yes');
      const open = domain.filter((v) => this.domains.allowed(fact, v) === 'open');
      if (allows.length + open.length === 0) return undefined;
      if (allows.length < domain.length)
        guards.push({ variable: control, in: allows, ...(open.length ? { open } : {}) });
    }
    return guards;
  }

  /** Everything that follows from some acts of a box, each message in its own time. */
  follow(device: Device, acts: readonly Act[], under: readonly Guard[], byte?: number): readonly SystemAct[] {
    if (this.isSaidAtOnce(device, acts)) return this.acts(device, acts, under, byte);
    const wires = new OnTheWire(this);
    return wires.after(() => {
      if (under.length === 0) return this.acts(device, acts, ALWAYS, byte, { depth: 0, wires });
      const then = wires.name(thenOf(`${device.id}`));
      return [...noteWhether(then, under), ...this.acts(device, acts, came(then, under), byte, { depth: 0, wires })];
    });
  }

  /** Whether what a slot sends may be told message by message: nobody who hears it tells anybody else anything. */
  isPlainSlot({ device, acts }: Program): boolean {
    return this.plain.isList(thePart(this.b.rig, device), acts);
  }

  /**
   * Whether the messages of a slot have their wires to themselves, so that it is known when they arrive whatever else
   * is sent.
   */
  hasWiresOfItsOwn({ device, acts }: Program): boolean {
    return acts.every((act) => !('send' in act) || !this.sharesWires(ref(device, act.at)));
  }

  private sharesWires(port: Ref): boolean {
    return keptIn(this.sharing, port, () => sharesWires(this, port));
  }

  /** Whether acts may be said one by one, in whatever way they are mixed with others. */
  isSaidAtOnce(device: Device, acts: readonly Act[]): boolean {
    return this.plain.isList(device, acts) && slotTiming(this.b, device.id, acts).every((t) => t.missed.length === 0);
  }

  /** Actuators that a foot, a pedal or a waking box sets off at the same time, with all that follows. */
  setOffInTime(those: readonly (readonly [Device, Actuator])[], byte?: number): readonly SystemAct[] {
    if (those.every(([device, { acts }]) => acts.every((act) => this.plain.is(device, act))))
      return those.flatMap(([device, a]) => this.setOff(device, a, ALWAYS, byte));
    const wires = new OnTheWire(this);
    return wires.after(() => those.flatMap(([device, a]) => this.setOff(device, a, ALWAYS, byte, { depth: 0, wires })));
  }

  acts(
    device: Device,
    acts: readonly Act[],
    under: readonly Guard[],
    byte?: number,
    how = theFirst(AT_ONCE),
  ): readonly SystemAct[] {
    if (how.depth > DEEPEST) return [];
    return acts.flatMap((act) => {
      const own = this.guards(device.id, act.when);
      return own ? this.act(device, act, [...under, ...own], byte, how) : [];
    });
  }

  /** An actuator that is set off: its conditions are read once, before its first act. */
  setOff(
    device: Device,
    { id, acts, when }: Actuator,
    under: readonly Guard[],
    byte?: number,
    how = theFirst(AT_ONCE),
  ): readonly SystemAct[] {
    const own = this.guards(device.id, when);
    if (!own) return [];
    const guards = own.length ? [...under, ...own] : under;
    if (guards.length === 0 || !acts.some((act, i) => this.movesOneOf(device, act, guards, i === acts.length - 1)))
      return this.acts(device, acts, guards, byte, how);
    const then = how.wires?.name(thenOf(`${device.id}.${id}`)) ?? thenOf(`${device.id}.${id}`);
    return [...noteWhether(then, guards), ...this.acts(device, acts, came(then, guards), byte, how)];
  }

  /** Whether an act can move what its conditions read before all that hangs on them is done. */
  private movesOneOf(device: Device, act: Act, guards: readonly Guard[], isLast: boolean): boolean {
    if ('load' in act) {
      const memory = memoryIn(device, act.load);
      return (
        !isLast ||
        guards.some(
          (g) =>
            g.variable === ref(device.id, surely(memory).control) ||
            surely(memory).stores.some((s) => g.variable === ref(device.id, s)),
        )
      );
    }
    if (isLast) return false;
    if (!('control' in act)) return true;
    const control = ref(device.id, act.control);
    return (
      guards.some((g) => g.variable === control) ||
      relaysOf(device).some((r) => r.closedWhen?.some((f) => 'control' in f && f.control === act.control))
    );
  }

  act(device: Device, act: Act, when: readonly Guard[], byte: number | undefined, how: How): readonly SystemAct[] {
    if ('control' in act) {
      const control = ref(device.id, act.control);
      if (!this.isVariable(control)) return [];
      if ('set' in act) return this.set(device, control, act.set, when, how);
      if ('toggle' in act) {
        const [a, b] = [this.domains.named(control, act.toggle[0]), this.domains.named(control, act.toggle[1])];
        return [
          ...this.contacts.followed(
            device,
            control,
            () => [
              [a, b],
              [b, a],
            ],
            when,
            how,
          ),
          ...this.one({ variable: control, toggle: [a, b] }, when),
        ];
      }
      if ('step' in act) {
        const step = act.step.map((v) => this.domains.named(control, v));
        const known = theEntry(this.domains.of, control).filter((v) => v !== UNKNOWN);
        const moves = () => known.map((v): ValueChange => [v, theItem(step, (step.indexOf(v) + 1) % step.length)]);
        const isKnown =
          known.length < theEntry(this.domains.of, control).length ? [...when, { variable: control, in: known }] : when;
        return [
          ...this.contacts.followed(device, control, moves, when, how),
          ...this.one({ variable: control, step }, isKnown),
        ];
      }
      if ('take' in act && byte === undefined) {
        const other = theEntry(this.domains.of, control).find(isOther);
        return other === undefined ? [] : this.one({ variable: control, set: other }, when);
      }
      const value = byte === undefined ? undefined : valueFrom(act, byte, controlIn(device, act.control));
      return value === undefined ? [] : this.set(device, control, value, when, how);
    }
    if ('load' in act) {
      const memory = theMemory(device, act.load);
      if (typeof act.slot === 'number') return this.loads.load(device, memory, act.slot, when, how);
      if (act.slot === 'value')
        return byte === undefined || byte >= memory.size ? [] : this.loads.load(device, memory, byte, when, how);
      return this.loads.loadInBank(device, memory, act.slot, when, how);
    }
    if ('send' in act)
      return how.wires
        ? how.wires.send(device, act, when)
        : this.guarded(when, this.answers.sent(device, act, how.depth));
    if ('pulse' in act) return this.contacts.pulse(device, act.pulse, when, how);
    return [];
  }

  set(
    device: Device,
    control: Ref,
    value: Value,
    when: readonly Guard[],
    how = theFirst(AT_ONCE),
  ): readonly SystemAct[] {
    if (how.wires) return this.guarded(when, this.setting(device, control, value, how));
    const said = (this.setsSaid[how.depth] ??= new Map<Ref, Map<Value, readonly SystemAct[]>>());
    let byValue = said.get(control);
    if (!byValue) said.set(control, (byValue = new Map()));
    let acts = byValue.get(value);
    if (!acts) byValue.set(value, (acts = this.setting(device, control, value, how)));
    return this.guarded(when, acts);
  }

  private setting(device: Device, control: Ref, value: Value, how: How): readonly SystemAct[] {
    const named = value === UNKNOWN ? UNKNOWN : this.domains.named(control, value);
    const act: SystemAct = { variable: control, set: named };
    const followed = this.contacts.followed(
      device,
      control,
      () => theEntry(this.domains.of, control).map((v): ValueChange => [v, named]),
      ALWAYS,
      how,
    );
    return followed.length ? [...followed, act] : [act];
  }

  /** Every value that a control may have, by name. */
  knownValues(control: Ref): readonly string[] {
    return theEntry(this.domains.of, control).filter((v) => v !== UNKNOWN);
  }

  /** Conditions under which a control has this value; undefined when it cannot have it. */
  guardThatHolds(control: Ref, value: Value): readonly Guard[] | undefined {
    if (this.isVariable(control)) return [{ variable: control, in: [this.domains.named(control, value)] }];
    return String(this.domains.constant(control)) === String(value) ? [] : undefined;
  }
}

/** What events are said with. */
export interface ModelTools {
  readonly domains: Domains;
  readonly shelf: Shelf;
  readonly effects: Effects;
}
