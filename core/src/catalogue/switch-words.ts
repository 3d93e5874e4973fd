import type { Act, Message } from '../rig/act.js';
import type { Actuator, Device, Stimulus } from '../rig/device.js';
import { controlIn } from '../rig/device.js';
import { theFirst } from '../known/the.js';
import { whenWords } from './inside.js';

/*
 * What the switches of a box do and what it listens to, in words and as something new to begin with.
 */

const GESTURES = { press: 'pressed', release: 'let go', hold: 'held down', twice: 'pressed twice' } as const;

/** @example stimulusWords({ foot: 'A', gesture: 'press' }) // 'switch A pressed' */
export const stimulusWords = (by: Stimulus): string => {
  if ('midi' in by) {
    const where = 'channel' in by && by.channel !== undefined ? ` on channel ${by.channel}` : '';
    return (
      { pc: 'program change', cc: 'controller', clock: 'MIDI clock', note: 'note' }[by.midi] +
      ('number' in by ? ` ${by.number}` : '') +
      where
    );
  }
  if ('contact' in by)
    return 'level' in by ? `contact at ${by.contact} ${by.level}` : `contact at ${by.contact} ${by.edge}`;
  if ('expression' in by) return `pedal at ${by.expression}`;
  if ('foot' in by) return `switch ${by.foot} ${GESTURES[by.gesture]}`;
  if ('hand' in by) return `a hand at ${by.hand}`;
  return 'position' in by ? `${by.position} arrives there` : 'power comes on';
};

/** @example messageWords({ pc: 4, channel: 2 }) // 'program 4 on channel 2' */
export const messageWords = (send: Message): string => {
  if ('bpm' in send) return `clock at ${send.bpm} bpm`;
  return 'pc' in send
    ? `program ${send.pc}${send.bank === undefined ? '' : ` of bank ${send.bank}`} on channel ${send.channel}`
    : `controller ${send.cc} at ${send.value} on channel ${send.channel}`;
};

const name = (device: Pick<Device, 'controls'>, id: string): string =>
  device.controls.find((c) => c.id === id)?.name ?? id;

/** What an act does, as a person says it. Numbers in messages are as the wire carries them. */
export const actWords = (device: Device, act: Act): string => {
  const when = act.when?.length ? `, while ${whenWords(act.when)}` : '';
  return doing(device, act) + when;
};

const doing = (device: Device, act: Act): string => {
  if ('send' in act)
    return `${act.afterMs ? `waits ${act.afterMs} ms, then ` : ''}sends ${messageWords(act.send)} at ${act.at}`;
  if ('pulse' in act) return `closes ${act.pulse} for a moment`;
  if ('follow' in act) return `does what the program assigned to ${act.follow}`;
  if ('load' in act) {
    const { slot } = act;
    if (slot === 'value') return `loads the program of that number`;
    return typeof slot === 'number'
      ? `loads program ${slot}, counted from 0`
      : `loads place ${slot.plus + 1} of the bank`;
  }
  const control = name(device, act.control);
  if ('set' in act) return `sets ${control} to ${act.set}`;
  if ('toggle' in act) return `turns ${control} over between ${act.toggle.join(' and ')}`;
  if ('step' in act)
    return `steps ${control} through ${act.step.slice(0, 6).join(', ')}${act.step.length > 6 ? ' …' : ''}`;
  if ('map' in act)
    return `sets ${control} by the value: ${act.map.map(([from, to, v]) => `${from} to ${to} ${v}`).join(', ')}`;
  return 'scale' in act ? `moves ${control} from ${act.scale[0]} to ${act.scale[1]}` : `gives ${control} the number`;
};

/** What a switch of a box can do, and what it can listen to: each as something new to begin with. */
export const ACT_KINDS = {
  set: 'sets a control',
  toggle: 'turns a control over',
  step: 'steps a control',
  map: 'sets a control by the value',
  scale: 'moves an amount',
  take: 'takes the number over',
  load: 'loads a program',
  send: 'sends a message',
  pulse: 'closes a contact for a moment',
  follow: 'does what the program assigned',
} as const;
export type ActKind = keyof typeof ACT_KINDS;

export const actKind = (act: Act): ActKind =>
  (Object.keys(ACT_KINDS) as readonly ActKind[]).find((kind) => kind in act) ?? 'set';

/** A first act of a kind, for a box that has what it needs; undefined where it has not. */
export const newAct = (device: Device, kind: ActKind): Act | undefined => {
  const [valued, amount] = [
    device.controls.find((c) => 'values' in c.domain && c.domain.values.length > 1),
    device.controls.find((c) => 'min' in c.domain),
  ];
  const values = valued && 'values' in valued.domain ? valued.domain.values : [];
  const [one, other] = values;
  const jack = (kind_: 'midi' | 'contact') =>
    device.jacks.find((j) => j.kind === kind_ && (j.poles.tip === 'out' || j.poles.ring === 'out'))?.id;
  switch (kind) {
    case 'set':
      return valued && one !== undefined ? { control: valued.id, set: one } : undefined;
    case 'toggle':
      return valued && one !== undefined && other !== undefined
        ? { control: valued.id, toggle: [one, other] }
        : undefined;
    case 'step':
      return valued && { control: valued.id, step: values };
    case 'map':
      return valued && one !== undefined && other !== undefined
        ? {
            control: valued.id,
            map: [
              [0, 63, one],
              [64, 127, other],
            ],
          }
        : undefined;
    case 'scale':
      return amount && 'min' in amount.domain
        ? { control: amount.id, scale: [amount.domain.min, amount.domain.max] }
        : undefined;
    case 'take':
      return amount && { control: amount.id, take: 'value' };
    case 'load':
      return device.memories.length > 0 ? { load: theFirst(device.memories).id, slot: 0 } : undefined;
    case 'send': {
      const at = jack('midi');
      return at === undefined ? undefined : { send: { pc: 0, channel: 1 }, at };
    }
    case 'pulse': {
      const at = jack('contact');
      return at === undefined ? undefined : { pulse: at };
    }
    case 'follow': {
      const place = device.memories.flatMap((m) => m.assignable ?? [])[0];
      return place && { follow: place.switch, gesture: 'press' };
    }
  }
};

export const STIMULUS_KINDS = {
  foot: 'a foot switch',
  pc: 'program change',
  cc: 'controller',
  clock: 'MIDI clock',
  note: 'a note',
  contact: 'a contact that closes or opens',
  level: 'a contact as long as it stays',
  expression: 'a pedal',
  hand: 'a hand',
  position: 'a song list or timeline',
  power: 'power comes on',
} as const;
export type StimulusKind = keyof typeof STIMULUS_KINDS;

export const stimulusKind = (by: Stimulus): StimulusKind => {
  if ('midi' in by) return by.midi;
  if ('contact' in by) return 'level' in by ? 'level' : 'contact';
  if ('expression' in by) return 'expression';
  if ('foot' in by) return 'foot';
  return 'hand' in by ? 'hand' : 'position' in by ? 'position' : 'power';
};

/** A first stimulus of a kind; undefined where the box has no such jack or memory. */
export const newStimulus = (device: Device, kind: StimulusKind): Stimulus | undefined => {
  const takes = (k: 'contact' | 'expression') =>
    device.jacks.find((j) => j.kind === k && (j.poles.tip === 'in' || j.poles.ring === 'in'))?.id;
  const [contact, pedal] = [takes('contact'), takes('expression')];
  const feet = device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : []));
  switch (kind) {
    case 'foot': {
      let n = 1;
      while (feet.includes(`switch ${n}`)) n += 1;
      return { foot: `switch ${n}`, gesture: 'press' };
    }
    case 'pc':
      return { midi: 'pc' };
    case 'cc':
      return { midi: 'cc', number: 80 };
    case 'clock':
      return { midi: 'clock' };
    case 'note':
      return { midi: 'note', number: 60 };
    case 'contact':
      return contact === undefined ? undefined : { contact, edge: 'closing' };
    case 'level':
      return contact === undefined ? undefined : { contact, level: 'closed' };
    case 'expression':
      return pedal === undefined ? undefined : { expression: pedal };
    case 'hand':
      return { hand: 'knob' };
    case 'position':
      return device.memories[0] && { position: device.memories[0].id };
    case 'power':
      return { power: 'on' };
  }
};

/** A name for a new switch that no other has. */
export const freshActuator = (device: Device, by: Stimulus): Actuator => {
  const wish = 'foot' in by ? by.foot : stimulusWords(by);
  const taken = new Set(device.actuators.map((a) => a.id));
  let id = wish;
  for (let n = 2; taken.has(id); n += 1) id = `${wish} ${n}`;
  return { id, by, acts: [] };
};

/** What a control can be set to, for a list of choices; none for an amount. */
export const positionsOf = (device: Device, control: string): readonly (string | number)[] => {
  const domain = controlIn(device, control)?.domain;
  return domain && 'values' in domain ? domain.values : [];
};
