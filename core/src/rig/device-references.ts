import type { Act } from './act.js';
import {
  controlIn,
  type Actuator,
  type Chain,
  type Device,
  type Gain,
  type Memory,
  type Slot,
  type Tap,
} from './device.js';
import { blockIds, domainText, inDomain } from './domain.js';
import type { When } from './value.js';

/** Something in a box that points at nothing, or at the wrong thing. */
export interface WrongReference {
  readonly where: string;
  readonly what: string;
  readonly would: string;
}

const duplicates = (names: readonly string[]): readonly string[] => [
  ...new Set(names.filter((n, i) => names.indexOf(n) !== i)),
];
const oneOf = (names: Iterable<string>, kind: string, none: string): string =>
  `Use one of ${[...names].join(', ') || `its ${kind} (it has ${none})`}.`;

/** Looks up every name that a box says of itself: controls, jacks, memories, switches. */
class References {
  readonly found: WrongReference[] = [];
  private readonly controls: ReadonlySet<string>;
  private readonly poles: ReadonlySet<string>;
  private readonly feet: ReadonlySet<string>;

  constructor(readonly device: Device) {
    this.controls = new Set(device.controls.map((c) => c.id));
    this.poles = new Set(
      device.jacks.flatMap((j) => [...(j.poles.tip ? [j.id] : []), ...(j.poles.ring ? [`${j.id}:ring`] : [])]),
    );
    this.feet = new Set(device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : [])));
  }

  add(where: string, what: string, would: string): void {
    this.found.push({ where, what, would });
  }

  control(where: string, id: string): void {
    if (!this.controls.has(id))
      this.add(where, `"${id}" is not a control of this device.`, oneOf(this.controls, 'controls', 'none'));
  }

  jack(where: string, at: string): void {
    if (!this.poles.has(at))
      this.add(where, `"${at}" is not a jack of this device.`, oneOf(this.poles, 'jacks', 'none'));
  }

  point(where: string, at: string): void {
    if (!at.startsWith('#') && !this.poles.has(at))
      this.add(
        where,
        `"${at}" is not a jack of this device.`,
        `Use one of ${[...this.poles].join(', ') || 'its jacks (it has none)'} or an inner bus such as "#bus".`,
      );
  }

  foot(where: string, id: string): void {
    if (!this.feet.has(id))
      this.add(where, `"${id}" is not a switch of this device.`, oneOf(this.feet, 'switches', 'none'));
  }

  memory(where: string, id: string): void {
    const { memories } = this.device;
    if (!memories.some((m) => m.id === id))
      this.add(
        where,
        `"${id}" is not a memory of this device.`,
        oneOf(
          memories.map((m) => m.id),
          'memories',
          'none',
        ),
      );
  }

  when(where: string, when: When | undefined): void {
    when?.forEach((fact) => ('jack' in fact ? this.point(where, fact.jack) : this.control(where, fact.control)));
  }

  gain(where: string, gain: Gain | undefined): void {
    if (typeof gain === 'object') this.control(where, gain.control);
  }

  taps(where: string, taps: readonly Tap[]): void {
    for (const { at, when, gain } of taps) {
      this.point(where, at);
      this.when(where, when);
      this.gain(where, gain);
    }
  }

  acts(where: string, acts: readonly Act[]): void {
    for (const act of acts) {
      this.when(where, act.when);
      if ('control' in act) this.control(where, act.control);
      if ('load' in act) this.memory(where, act.load);
      if ('load' in act && typeof act.slot === 'object') this.control(where, act.slot.bank);
      if ('send' in act) this.jack(where, act.at);
      if ('pulse' in act) this.jack(where, act.pulse);
      if ('follow' in act) this.foot(where, act.follow);
    }
  }

  chain(chain: Chain): void {
    const where = `chains.${chain.id}`;
    this.taps(where, [...chain.from, ...chain.to]);
    this.when(where, chain.when);
    this.slots(where, chain.slots);
    if (chain.order) this.order(`${where}.order`, chain, chain.order);
  }

  /** What is arranged are the stages and loops of the chain itself. */
  private order(where: string, chain: Chain, id: string): void {
    this.control(where, id);
    const domain = controlIn(this.device, id)?.domain;
    if (!domain) return;
    if (!('arrange' in domain))
      this.add(where, `"${id}" holds no order.`, 'Name a control whose values are arrangements.');
    else
      for (const name of domain.arrange)
        if (!chain.slots.some((s) => s.id === name))
          this.add(
            where,
            `"${name}" is to be arranged and is not in the chain.`,
            oneOf(
              chain.slots.map((s) => s.id),
              'stages',
              'none',
            ),
          );
  }

  private slots(where: string, slots: readonly Slot[]): void {
    for (const slot of slots) this.slot(`${where}.${slot.id}`, slot);
  }

  private slot(at: string, slot: Slot): void {
    switch (slot.is) {
      case 'block':
        for (const when of [slot.on, slot.wetOnly, slot.mutes, slot.polarity?.invertedWhen]) this.when(at, when);
        if (typeof slot.tails === 'object') this.when(at, slot.tails);
        if (slot.key !== undefined) this.point(at, slot.key);
        return this.gain(at, slot.gain);
      case 'insert':
        this.taps(at, [...slot.send, ...slot.return]);
        this.when(at, slot.on);
        if (typeof slot.direct === 'object') this.when(at, slot.direct);
        if (typeof slot.off === 'object') this.when(at, slot.off.sendOnlyWhen);
        return;
      case 'fork':
        if (typeof slot.crossoverHz === 'string') this.control(at, slot.crossoverHz);
        if (slot.arms.length === 0)
          this.add(
            at,
            `The fork "${slot.id}" has no arms.`,
            'Give it an arm for each way the signal can go, or take it out.',
          );
        for (const twice of duplicates(slot.arms.map((a) => a.id)))
          this.add(at, `"${twice}" is there twice.`, 'Give each its own name.');
        for (const arm of slot.arms) {
          this.when(`${at}.${arm.id}`, arm.when);
          this.when(`${at}.${arm.id}`, arm.polarity?.invertedWhen);
          this.gain(`${at}.${arm.id}`, arm.gain);
          this.slots(`${at}.${arm.id}`, arm.slots);
        }
    }
  }

  actuator({ id, by, when, acts }: Actuator): void {
    const where = `actuators.${id}`;
    if ('contact' in by) this.jack(where, by.contact);
    if ('expression' in by) this.jack(where, by.expression);
    if ('position' in by) this.memory(where, by.position);
    this.when(where, when);
    this.acts(where, acts);
  }

  memoryItself(memory: Memory): void {
    const where = `memories.${memory.id}`;
    this.control(`${where}.control`, memory.control);
    for (const id of [...memory.stores, ...(memory.mayStore ?? [])]) this.control(`${where}.stores`, id);
    if (memory.stores.includes(memory.control))
      this.add(
        `${where}.stores`,
        `"${memory.control}" says which program is loaded, so no program can hold it.`,
        'Take it off the list.',
      );
    if (memory.inside !== undefined) {
      this.memory(`${where}.inside`, memory.inside);
      if (memory.inside === memory.id)
        this.add(`${where}.inside`, 'It would be inside itself.', 'Name the memory that its programs belong to.');
    }
    for (const id of memory.switches ?? []) this.foot(`${where}.switches`, id);
    if (memory.bank) {
      this.control(`${where}.bank`, memory.bank.control);
      this.foot(`${where}.bank.up`, memory.bank.up);
      this.foot(`${where}.bank.down`, memory.bank.down);
    }
    memory.assignable?.forEach((place, i) => {
      this.foot(`${where}.assignable[${i}].switch`, place.switch);
      this.control(`${where}.assignable[${i}].latch`, place.latch);
      this.control(`${where}.assignable[${i}].held`, place.held);
    });
    for (const twice of duplicates((memory.assignable ?? []).flatMap((p) => [p.latch, p.held])))
      this.add(
        `${where}.assignable`,
        `"${twice}" would remember two things.`,
        'Give each switch two controls of its own.',
      );
    for (const twice of duplicates((memory.assignable ?? []).map((p) => p.switch)))
      this.add(`${where}.assignable`, `The switch "${twice}" is there twice.`, 'Name each switch once.');
  }

  controlsThemselves(): void {
    for (const control of this.device.controls) {
      const { domain, powerUp } = control;
      const where = `controls.${control.id}`;
      if ('values' in domain && domain.values.length === 0)
        this.add(`${where}.domain`, 'It has no value at all.', 'Give it two values or more, such as off and on.');
      if ('values' in domain)
        for (const twice of duplicates(domain.values.map(String)))
          this.add(`${where}.domain`, `"${twice}" is there twice.`, 'Give each value once.');
      if ('min' in domain && domain.min > domain.max)
        this.add(`${where}.domain`, `It goes from ${domain.min} to ${domain.max}.`, 'Say the smaller first.');
      if ('step' in domain && domain.step !== undefined && domain.step <= 0)
        this.add(`${where}.domain`, `It goes in steps of ${domain.step}.`, 'Use a step above 0, or none.');
      if (typeof powerUp === 'object' && !inDomain(control, powerUp.at))
        this.add(
          `${where}.powerUp`,
          `${JSON.stringify(powerUp.at)} is outside its range.`,
          `Use ${domainText(control)}.`,
        );
    }
  }
}

/** Every name in a box that points at nothing, or that two things share. */
export const wrongInDevice = (device: Device): readonly WrongReference[] => {
  const look = new References(device);
  const { jacks, chains, controls, actuators, memories, ends, midi, figures } = device;
  for (const [where, names] of [
    ['jacks', jacks.map((j) => j.id)],
    ['chains', chains.map((c) => c.id)],
    ['controls', controls.map((c) => c.id)],
    ['actuators', actuators.map((a) => a.id)],
    ['memories', memories.map((m) => m.id)],
    ['chains', chains.flatMap((c) => blockIds(c.slots))],
    ...chains.map((c) => [`chains.${c.id}`, c.slots.map((s) => s.id)] as const),
    ['memories', memories.map((m) => m.control)],
  ] as const) {
    for (const twice of duplicates(names)) look.add(where, `"${twice}" is there twice.`, 'Give each its own name.');
  }
  chains.forEach((chain) => look.chain(chain));
  memories.forEach((memory) => look.memoryItself(memory));
  actuators.forEach((actuator) => look.actuator(actuator));
  jacks.forEach((jack) => {
    for (const when of [jack.closedWhen, jack.ringClosedWhen]) look.when(`jacks.${jack.id}`, when);
    if (typeof jack.shield === 'object') look.when(`jacks.${jack.id}.shield`, jack.shield.liftedWhen);
  });
  ends?.forEach((end, i) => look.point(`ends[${i}]`, end.at));
  if (typeof midi?.channel === 'string') look.control('midi.channel', midi.channel);
  for (const twice of duplicates((figures.switches ?? []).map((s) => s.id)))
    look.add('figures.switches', `"${twice}" is there twice.`, 'Give each switch one place.');
  look.controlsThemselves();
  return look.found;
};

/** What programs of a box carry out must be there in that box too. */
export const wrongActs = (device: Device, where: string, acts: readonly Act[]): readonly WrongReference[] => {
  const look = new References(device);
  look.acts(where, acts);
  return look.found;
};
