import type { Bench, Heard } from '../bench/bench.js';
import { shown } from '../midi/numbering.js';
import { controlText, slotText, valueText } from '../recall/words.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import type { Device, Memory } from '../rig/device.js';
import { all, partOf, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Item } from '../signal/picture.js';
import { trace } from '../signal/trace.js';
import type { Derived } from './deriver.js';
import { wrongOnBench } from './play.js';
import { runOf } from './view.js';

export interface SwitchView {
  readonly device: Id<'device'>;
  readonly switch: string;
  /** What a press does now: a sound's name, a move's, a bank. */
  readonly label: string;
  readonly about: string;
  readonly state: 'called' | 'latched' | 'held' | 'ready' | 'empty';
  readonly holds: boolean;
}

export interface BoxView {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly says: readonly { readonly text: string; readonly changed: boolean }[];
  readonly outside: boolean;
}

export interface WireLine {
  readonly at: string;
  readonly bytes: string;
  readonly reads: string;
  readonly who: string;
  readonly kind: 'stomp' | 'message' | 'contact' | 'nobody';
}

/** The bench as the screen shows it. Plain data. */
export interface BenchView {
  readonly now: string;
  readonly bank: string;
  readonly floor: readonly SwitchView[];
  readonly boxes: readonly BoxView[];
  readonly wire: readonly WireLine[];
  readonly run: readonly Item[];
  /** The sound that is loaded on the first controller, or in the first list where no foot calls, and what is wrong with it right now. */
  readonly sound?: { readonly id: Id<'sound'>; readonly name: string; readonly wrong: readonly string[] };
}

const MOST_LINES = 400;

export const benchView = (d: Derived, bench: Bench, before: ReadonlyMap<Ref, Value>): BenchView => {
  const state = bench.state();
  const callers = all(d.rig, 'device').flatMap((device) => device.memories.flatMap((m) => (m.by ? [{ device, memory: m }] : [])));
  const { device: controller, memory } = callers.find((c) => c.memory.by === 'slot') ?? callers[0] ?? {};
  const heeds = d.compilation.sounds.values().next().value?.heard ?? [];
  const traced = trace(d.anatomy.wiring, state, heeds.length ? { from: heeds.map((h) => h.from), to: heeds.map((h) => h.at) } : {});
  const slot = controller && memory ? Number(state.get(ref(controller.id, memory.control))) : undefined;
  const sound = soundsInOrder(d.rig).find((s) => s.calls.some((c) => c.device === controller?.id && c.memory === memory?.id && c.slot === slot));
  return {
    now: clock(bench.now),
    bank: controller && memory?.bank ? String(state.get(ref(controller.id, memory.bank.control))) : '',
    floor: all(d.rig, 'device').flatMap((device) => device.memories.flatMap((m) => (m.by === 'slot' ? floorOf(d.rig, device, m, state) : []))),
    boxes: all(d.rig, 'device').filter((x) => d.anatomy.wiring.wired.has(x.id) && x.controls.length > 0).map((x) => boxView(d, x, state, before, traced.onPath)),
    wire: bench.heard.slice(-MOST_LINES).map((h) => wireLine(d.rig, h)),
    run: runOf(d, traced),
    ...(sound ? { sound: { id: sound.id, name: sound.name, wrong: wrongOnBench(d, bench, sound.id).map((control) => {
      const wanted = d.modelled.system.sounds.find((s) => s.id === sound.id)!.wants.find((w) => w.variable === control)!.value;
      return `${controlText(d.rig, control)} is ${valueText(d.rig, control, state.get(control) ?? '')}, wanted ${valueText(d.rig, control, wanted)}`;
    }) } } : {}),
  };
};

/** Time since the power came on. @example clock(4_180_960) // '4.180 960' */
export const clock = (us: number): string => {
  const whole = Math.round(us);
  const ms = Math.floor(whole / 1000);
  return `${Math.floor(ms / 1000)}.${String(ms % 1000).padStart(3, '0')} ${String(whole % 1000).padStart(3, '0')}`;
};

const floorOf = (rig: Rig, device: Device, memory: Memory, state: ReadonlyMap<Ref, Value>): readonly SwitchView[] => {
  const value = (control: string) => state.get(ref(device.id, control));
  const size = memory.switches?.length ?? 0;
  const bank = memory.bank ? Number(value(memory.bank.control)) - (memory.shows.bank?.first ?? 1) : 0;
  const calls = (memory.switches ?? []).map((name, i): SwitchView => {
    const slot = bank * size + i;
    const sound = all(rig, 'sound').find((s) => s.calls.some((c) => c.device === device.id && c.memory === memory.id && c.slot === slot));
    return {
      device: device.id, switch: name, label: sound?.name ?? 'empty', about: sound ? `${slotText(rig, sound)} · ${sound.role}` : shown(memory.shows, slot), holds: false,
      state: !sound ? 'empty' : Number(value(memory.control)) === slot ? 'called' : 'ready',
    };
  });
  const loaded = all(rig, 'sound').find((s) => s.calls.some((c) => c.device === device.id && c.slot === Number(value(memory.control))));
  const assigned = (memory.assignable ?? []).map(({ switch: name, latch, held }): SwitchView => {
    const move = all(rig, 'move').find((m) => m.at.some((a) => a.device === device.id && a.switch === name) && (m.sounds === 'all' || (loaded && m.sounds.includes(loaded.id))));
    return {
      device: device.id, switch: name, label: move?.name ?? 'nothing here', about: move ? (move.latch ? 'latched' : 'while held') : '', holds: move ? !move.latch : false,
      state: value(held) === 'on' ? 'held' : value(latch) === 'on' ? 'latched' : move ? 'ready' : 'empty',
    };
  });
  const banks = memory.bank ? [memory.bank.down, memory.bank.up].map((name): SwitchView => ({ device: device.id, switch: name, label: name === memory.bank!.up ? 'Bank up' : 'Bank down', about: `bank ${bank + (memory.shows.bank?.first ?? 1)} shows`, holds: false, state: 'ready' })) : [];
  return [...calls, ...assigned, ...banks];
};

const boxView = (d: Derived, device: Device, state: ReadonlyMap<Ref, Value>, before: ReadonlyMap<Ref, Value>, onPath: Uint8Array): BoxView => {
  const shownControls = device.controls.filter((c) => !/^(bank|held-|latch-)/.test(c.id) && c.use !== 'play');
  const loops = shownControls.filter((c) => /^loop\d+$/.test(c.id));
  const value = (control: string) => state.get(ref(device.id, control));
  const isChanged = (control: string) => before.size > 0 && String(before.get(ref(device.id, control))) !== String(value(control));
  const says = shownControls.filter((c) => !loops.includes(c) && c.id !== 'order').map((c) => {
    const r = ref(device.id, c.id);
    const memory = device.memories.find((m) => m.control === c.id);
    const program = memory && [...d.modelled.programs].find((p) => p.device === device.id && p.memory === memory.id && p.number === Number(value(c.id)));
    return { text: `${c.name ?? c.id} ${valueText(d.rig, r, value(c.id) ?? '')}${program ? ` “${program.name}”` : ''}`, changed: isChanged(c.id) };
  });
  return {
    device: device.id, code: device.code, name: device.name,
    says: [...(loops.length ? [{ text: `loops ${loops.map((c) => (value(c.id) === 'on' ? c.id.slice(4) : '·')).join(' ')}`, changed: loops.some((c) => isChanged(c.id)) }] : []), ...says],
    outside: !d.anatomy.wiring.points.some((p, i) => p.device === device.id && onPath[i]),
  };
};

const NOT_HEARD = 'nobody';

const wireLine = (rig: Rig, h: Heard): WireLine => {
  const code = (id: Id<'device'>) => partOf(rig, id)?.code ?? id;
  if (h.is === 'stomp') return { at: clock(h.at), bytes: '', reads: `${code(h.device)}: ${h.what}`, who: '', kind: 'stomp' };
  if (h.is === 'clock') return { at: clock(h.at), bytes: 'F8', reads: `${code(h.from)}: clock, ${h.bpm} beats a minute`, who: '', kind: 'message' };
  if (h.is === 'fault') return { at: clock(h.at), bytes: '', reads: h.what, who: '', kind: 'nobody' };
  if (h.is === 'contact') return { at: clock(h.at), bytes: '', reads: `${code(h.device)} ${h.jack} ${h.closed ? 'closes' : 'opens'}`, who: '', kind: 'contact' };
  const { status, channel, data } = h.read;
  const reads = status === 0xc ? `ch ${channel} program ${data[0]}` : status === 0xb ? `ch ${channel} controller ${data[0]} = ${data[1]}` : `ch ${channel} status ${status.toString(16).toUpperCase()}`;
  const reacts = h.reacts.map((id) => {
    const memory = partOf(rig, id)?.memories[0];
    return status === 0xc && memory ? `${code(id)} shows ${shown(memory.shows, data[0]!)}` : code(id);
  });
  return { at: clock(h.at), bytes: h.bytes, reads, who: [reacts.join(', '), (h.missed ?? []).map((id) => `${code(id)} misses it while it loads`).join(', ')].filter(Boolean).join('; ') || NOT_HEARD, kind: reacts.length && !h.missed ? 'message' : 'nobody' };
};
