import { nothing, together, type Edit } from '../change/edit.js';
import { theFirst } from '../known/the.js';
import type { Device, Insert, Jack, Memory, Stage } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, type Rig } from '../rig/rig.js';
import { givesOut, takesIn } from './cables.js';

export type School = 'straight' | 'loops' | 'four cables';

export interface WiringStep {
  readonly from: Ref;
  readonly to: Ref;
  readonly why: string;
}

export interface WiringPlan {
  readonly steps: readonly WiringStep[];
  /** What stands in the way, or is left over, in plain words. */
  readonly notes: readonly string[];
  /** What is plugged stays so: the plan only adds to it. */
  readonly adds?: true;
}

/**
 * Usual signal order before and after the gain (common practice); practitioners differ, and every cable can be moved.
 */
const ORDER: readonly Stage[] = [
  'wireless',
  'tuner',
  'wah',
  'filter',
  'compressor',
  'pitch',
  'octave',
  'fuzz',
  'overdrive',
  'distortion',
  'boost',
  'eq',
  'gate',
  'volume',
  'enhancer',
  'generator',
  'preamp',
  'modulation',
  'tremolo',
  'delay',
  'reverb',
  'looper',
  'cabinet simulation',
];
export const AFTER_GAIN: readonly Stage[] = ['modulation', 'tremolo', 'delay', 'reverb', 'looper'];
const BEFORE_SWITCHER: readonly Stage[] = ['wireless', 'tuner'];

export const stagesOf = (device: Device): readonly Stage[] =>
  device.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'block' ? [s.stage] : [])));
/** Where a box usually stands in a chain; 99 for one that has no usual place. */
export const usualPlace = (device: Device): number =>
  Math.min(
    99,
    ...stagesOf(device)
      .map((s) => ORDER.indexOf(s))
      .filter((i) => i >= 0),
  );
const audio = (device: Device, way: (j: Jack) => boolean): readonly Jack[] =>
  device.jacks.filter((j) => j.kind === 'audio' && way(j));
export const waysIn = (d: Device): readonly Jack[] => audio(d, takesIn);
export const waysOut = (d: Device): readonly Jack[] => audio(d, givesOut);
export const inOf = (d: Device): Jack | undefined => waysIn(d)[0];
export const outOf = (d: Device): Jack | undefined => waysOut(d)[0];
/** @throws when the box has no way in for a signal */
export const theInput = (d: Device): Jack => theFirst(waysIn(d));
/** @throws when the box has no way out for a signal */
export const theOutput = (d: Device): Jack => theFirst(waysOut(d));
export const insertsOf = (d: Device): readonly Insert[] =>
  d.chains.flatMap((c) => c.slots.filter((s): s is Insert => s.is === 'insert'));

interface Cast {
  readonly source: Device | undefined;
  readonly boxes: readonly Device[];
  readonly switcher: Device | undefined;
  readonly modeller: Device | undefined;
  readonly amp: Device | undefined;
  readonly cabinet: Device | undefined;
  readonly microphone: Device | undefined;
  readonly di: Device | undefined;
  readonly desk: Device | undefined;
}

/** The box with the most loops; of two alike the one that stands first in the kit. */
const switcherAmong = (devices: readonly Device[]): Device | undefined =>
  [...devices].filter((d) => insertsOf(d).length > 1).sort((a, b) => insertsOf(b).length - insertsOf(a).length)[0];

const castOf = (rig: Rig): Cast => {
  const devices = all(rig, 'device');
  const withSend = (d: Device) => d.jacks.some((j) => j.id === 'send') && d.jacks.some((j) => j.id === 'return');
  const switcher = switcherAmong(devices);
  const modeller = devices.find((d) => d !== switcher && insertsOf(d).length === 1);
  const amp = devices.find((d) => d.zone === 'amp' && withSend(d)) ?? devices.find((d) => d.zone === 'amp');
  const desk = devices.find((d) => d.ends?.some((e) => e.is === 'house'));
  const boxes = devices
    .filter(
      (d) =>
        ![switcher, modeller, amp, desk].includes(d) &&
        !d.ends?.length &&
        (d.zone === 'floor' || d.zone === 'hands') &&
        usualPlace(d) < 99 &&
        inOf(d) &&
        outOf(d),
    )
    .sort((a, b) => usualPlace(a) - usualPlace(b));
  return {
    source: devices.find((d) => d.ends?.some((e) => e.is === 'source' && e.what !== 'voice')),
    boxes,
    switcher,
    modeller,
    amp,
    desk,
    cabinet: devices.find((d) => d.jacks.some((j) => j.load === 'speaker')),
    microphone: devices.find((d) => stagesOf(d).includes('microphone')),
    di: devices.find((d) => stagesOf(d).includes('DI')),
  };
};

/** A box that belongs behind the gain. */
const isLate = (d: Device): boolean => stagesOf(d).some((s) => AFTER_GAIN.includes(s));

/** Leads as they are plugged one after the other, from wherever the signal has come to. */
class Leads {
  readonly steps: WiringStep[] = [];
  readonly notes: string[] = [];

  constructor(public last: { readonly device: Device; readonly out: string }) {}

  /** Nothing where a box or a jack is missing. */
  lead(from: Device, out: string | undefined, to: Device | undefined, into: string | undefined, why: string): void {
    if (to && out && into) this.steps.push({ from: ref(from.id, out), to: ref(to.id, into), why });
  }

  /** From where the signal is into a jack of a box. */
  into(to: Device | undefined, jack: string | undefined, why: string): void {
    this.lead(this.last.device, this.last.out, to, jack, why);
  }

  through(device: Device, why: string): void {
    this.into(device, inOf(device)?.id, why);
    this.last = { device, out: theOutput(device).id };
  }
}

/** Plans a whole hook-up with what is in the kit. Nothing is plugged yet; each step says why. */
export const planWiring = (rig: Rig, school: School): WiringPlan => {
  const cast = castOf(rig);
  const { source } = cast;
  if (!source) return { steps: [], notes: ['There is no instrument in the kit. Add a guitar or a bass first.'] };
  const leads = new Leads({ device: source, out: theOutput(source).id });
  const missing = wireAs(school, leads, cast);
  if (missing) return { steps: leads.steps, notes: [missing] };
  wireToEars(leads, cast);
  return { steps: [...leads.steps, ...controlSteps(rig)], notes: leads.notes };
};

/** MIDI and contacts beside what is plugged already: only between jacks that are free. */
export const planControl = (rig: Rig, hookup: Id<'hookup'>): WiringPlan => {
  const taken = new Set<Ref>(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const wanted = controlSteps(rig);
  const steps = wanted.filter(({ from, to }) => !taken.has(from) && !taken.has(to));
  const notes =
    wanted.length === 0
      ? ['No box here sends MIDI or closes a contact that another one listens to.']
      : steps.length === 0
        ? ['It is plugged already.']
        : [];
  return { steps, notes, adds: true };
};

/** @returns what the kit lacks for this school */
const wireAs = (school: School, leads: Leads, cast: Cast): string | undefined => {
  if (school === 'straight') return wireStraight(leads, cast);
  if (school === 'loops' || cast.switcher) return wireLoops(leads, cast, school === 'four cables');
  return wireModeller(leads, cast);
};

const wireStraight = (leads: Leads, { boxes, amp }: Cast): undefined => {
  for (const box of boxes) leads.through(box, `${box.name}: usual place in a straight chain`);
  if (amp) leads.through(amp, 'the chain ends in the amp; its loop closes by itself');
};

/** Every box in a loop of the switcher, the preamp of the amp as well where it is four cables. */
const wireLoops = (leads: Leads, { boxes, switcher, amp }: Cast, isFour: boolean): string | undefined => {
  if (!switcher) return 'There is no loop switcher in the kit. Add one, or wire a straight chain.';
  const early = boxes.filter((d) => stagesOf(d).some((s) => BEFORE_SWITCHER.includes(s)));
  const looped = boxes.filter((d) => !early.includes(d));
  for (const box of early) leads.through(box, `${box.name}: before the switcher, always in the path`);
  leads.into(switcher, inOf(switcher)?.id, 'the switcher takes the whole signal');
  const loops = [...insertsOf(switcher)];
  const inLoop = (box: Device, why: string): void => {
    const loop = loops.shift();
    if (!loop) return void leads.notes.push(`No loop is left for ${box.name}.`);
    leads.lead(switcher, loop.send[0]?.at, box, inOf(box)?.id, why);
    leads.lead(box, outOf(box)?.id, switcher, loop.return[0]?.at, `${box.name} comes back to its loop`);
  };
  for (const box of looped.filter((d) => !isLate(d))) inLoop(box, `${box.name}: before the gain of the amp`);
  if (isFour) preampInLoop(leads, switcher, amp, loops.shift());
  for (const box of looped.filter(isLate))
    inLoop(box, `${box.name}: ${isFour ? 'after the preamp' : 'last in the order'}`);
  leads.last = { device: switcher, out: 'out' };
  if (!amp) return undefined;
  if (isFour) leads.into(amp, 'return', 'fourth: into the power amp; the guitar into the switcher was the third');
  else leads.into(amp, inOf(amp)?.id, 'the switcher feeds the amp');
  leads.last = { device: amp, out: 'speaker' };
  return undefined;
};

const preampInLoop = (leads: Leads, switcher: Device, amp: Device | undefined, loop: Insert | undefined): void => {
  if (!amp || !amp.jacks.some((j) => j.id === 'send') || !loop) {
    leads.notes.push('Four cables need an amp with a send and a return, and a free loop.');
    return;
  }
  leads.lead(switcher, loop.send[0]?.at, amp, 'in', 'first of the four cables: into the front of the amp');
  leads.lead(amp, 'send', switcher, loop.return[0]?.at, 'second: the preamp comes back to the switcher');
};

/** Four cables around a modeller with a loop. */
const wireModeller = (leads: Leads, { boxes, modeller, amp }: Cast): string | undefined => {
  const loop = modeller && insertsOf(modeller)[0];
  if (!loop || !amp)
    return 'Four cables need a switcher or a modeller with a loop, and an amp with a send and a return.';
  for (const box of boxes.filter((d) => !isLate(d))) leads.through(box, `${box.name}: in front of the modeller`);
  leads.into(modeller, inOf(modeller)?.id, 'the modeller takes the whole signal');
  leads.lead(modeller, loop.send[0]?.at, amp, 'in', 'its send goes into the front of the amp');
  leads.lead(amp, 'send', modeller, loop.return[0]?.at, 'the preamp comes back to its return');
  const main = modeller.jacks.find((j) => j.id.startsWith('out')) ?? theOutput(modeller);
  leads.last = { device: modeller, out: main.id };
  for (const box of boxes.filter(isLate)) leads.through(box, `${box.name}: behind the modeller, after the preamp`);
  const output = leads.last.device === modeller ? 'its output' : 'the last output';
  leads.into(amp, 'return', `${output} goes into the power amp`);
  leads.last = { device: amp, out: 'speaker' };
  return undefined;
};

/** From the last box to the cabinet and its microphone, or to the desk. */
const wireToEars = (leads: Leads, { amp, cabinet, microphone, di, desk }: Cast): void => {
  if (amp && cabinet) {
    const load = 'a power amp needs its load: a speaker cable, never an instrument cable';
    leads.lead(amp, 'speaker', cabinet, 'in', load);
    if (microphone && desk) {
      leads.lead(cabinet, 'air', microphone, 'air', 'the microphone stands before the cabinet');
      leads.lead(microphone, 'out', desk, 'ch1', 'the house hears the cabinet through its microphone');
    }
  } else if (amp) leads.notes.push('There is no cabinet in the kit. A valve amp must never run without its load.');
  else if (desk) {
    if (di) leads.through(di, 'the DI makes the long way to the desk balanced');
    const { device, out } = leads.last;
    const xlr = device.jacks.find((j) => j.kind === 'audio' && j.connector === 'XLR' && givesOut(j));
    leads.lead(device, xlr?.id ?? out, desk, 'ch1', 'without an amp the rig ends at the desk');
  }
  if (!cabinet && !desk) leads.notes.push('Nothing in the kit is heard: add a cabinet or a mixing desk.');
};

const midiIn = (d: Device): Jack | undefined => d.jacks.find((j) => j.kind === 'midi' && takesIn(j));
const midiOuts = (d: Device): readonly Ref[] =>
  d.jacks.filter((j) => j.kind === 'midi' && givesOut(j)).map((j) => ref(d.id, j.id));
/** A thru box or a splitter: it only passes MIDI on. */
const isHub = (d: Device): boolean =>
  !d.midi && d.memories.length === 0 && midiIn(d) !== undefined && midiOuts(d).length > 0;

/** From the one that calls to whatever listens: boxes that pass on one after the other, and a hub where several end. */
const midiSteps = (devices: readonly Device[], master: Device, board: Device | undefined): WiringStep[] => {
  const steps: WiringStep[] = [];
  const others = devices.filter((d) => d !== master && d !== board && d.midi && midiIn(d));
  const passing = others.filter((d) => midiOuts(d).length > 0);
  const ending = others.filter((d) => midiOuts(d).length === 0);
  const hub = ending.length > 1 || (ending.length > 0 && passing.length > 0) ? devices.find(isHub) : undefined;
  const queue = [...(board && board !== master ? [board] : []), ...(hub ? [hub] : []), ...passing, ...ending];
  let outs = midiOuts(master).slice(0, 1);
  for (const device of queue) {
    const [from, ...rest] = outs;
    const into = midiIn(device);
    if (!from || !into) break;
    const speaker = board ?? master;
    steps.push({
      from,
      to: ref(device.id, into.id),
      why:
        device === board
          ? `${master.name} calls the slots of ${device.name}`
          : device === hub
            ? `${device.name} passes on what ${speaker.name} sends`
            : `${device.name} listens to ${speaker.name}`,
    });
    outs = [...midiOuts(device).slice(0, device === hub ? undefined : 1), ...rest];
  }
  return steps;
};

/** MIDI from box to box and contacts to the amp, so that the controller reaches whatever listens. */
export const controlSteps = (rig: Rig): readonly WiringStep[] => {
  const devices = all(rig, 'device');
  const calls = (d: Device, ...by: readonly Memory['by'][]): boolean =>
    d.memories.some((m) => by.includes(m.by)) && d.jacks.some((j) => j.kind === 'midi' && givesOut(j));
  const board = devices.find((d) => calls(d, 'slot'));
  /** A timeline or a song list stands before the board that it calls; what the board sends comes behind it. */
  const master = devices.find((d) => calls(d, 'song', 'cue')) ?? board;
  const steps: WiringStep[] = master ? midiSteps(devices, master, board) : [];
  const switching = devices.find(
    (d) => d.memories.some((m) => m.by === 'slot') && d.jacks.some((j) => j.kind === 'contact' && givesOut(j)),
  );
  const contacts = [...devices.filter(isFootSwitch), ...(switching ? [switching] : [])].flatMap((device) =>
    device.jacks.filter((j) => j.kind === 'contact' && givesOut(j)).map((jack) => ({ device, jack })),
  );
  // What MIDI reaches needs no contact besides: two that say otherwise would spoil it.
  const told = new Set(steps.map(({ to }) => splitRef(to).device));
  for (const device of devices.filter((d) => !told.has(d.id))) {
    for (const jack of device.jacks) {
      const out = jack.kind === 'contact' && takesIn(jack) ? contacts.shift() : undefined;
      if (out)
        steps.push({
          from: ref(out.device.id, out.jack.id),
          to: ref(device.id, jack.id),
          why: `${out.device.name} switches ${device.name}${out.device === switching ? ' by a relay' : ''}`,
        });
    }
  }
  return steps;
};

/** Closes contacts under a foot, and does nothing else. */
const isFootSwitch = (d: Device): boolean =>
  d.jacks.length > 0 && d.jacks.every((j) => j.kind === 'power' || (j.kind === 'contact' && givesOut(j)));

/** Carries a plan out: every cable of the hook-up is pulled first, unless the plan only adds to them. */
export const carryOutWiring = (
  rig: Rig,
  hookup: Id<'hookup'>,
  plan: WiringPlan,
  cableId: (step: number) => Id<'cable'>,
): Edit => {
  if (plan.steps.length === 0) return nothing;
  return together(
    { put: [], remove: plan.adds ? [] : cablesOf(rig, hookup).map((c) => c.id) },
    {
      put: plan.steps.map(({ from, to }, i) => ({ kind: 'cable', id: cableId(i), hookup, ends: [from, to] })),
      remove: [],
    },
  );
};
