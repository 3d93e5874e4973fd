import { soundsHere } from '../../recall/intend/wants.js';
import type { Sound } from '../../rig/sound.js';
import type { Bench, MonitorLine, Silence } from '../../bench/bench.js';
import { reckonedStep } from '../../electric/levels/steps.js';
import { shown } from '../../midi/numbering.js';
import { controlText, valueText } from '../../recall/words/words.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import type { Device, Memory } from '../../rig/device.js';
import { all, partOf, thePart, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import type { Item } from '../../signal/drawing/picture.js';
import type { Anatomy } from '../../signal/graph/anatomy.js';
import { tailsOf } from '../../signal/graph/tails.js';
import { trace, type Trace } from '../../signal/graph/trace.js';
import type { Derived } from '../steps/deriver.js';
import { asItStands, wrongNow, type Fault } from '../play/faults.js';
import { wrongOnBench } from '../play/play.js';
import { heldNow } from './latched.js';
import { levelsShown, type LevelsShown } from './levels-shown.js';
import { runOf } from './view.js';
import { theOne, theEntry, theFirst } from '../../known/the.js';
import { memoryChosenBy, memoryIn } from '../../rig/box.js';
import type { Program } from '../../rig/program.js';
import { floorOf, type SwitchView } from './floor.js';

export interface BoxView {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly says: readonly { readonly text: string; readonly changed: boolean }[];
  readonly outside: boolean;
  readonly dark: boolean;
  /** Its own switches, for a foot or hand. */
  readonly feet: readonly string[];
}

export interface WireLine {
  readonly at: string;
  readonly bytes: string;
  readonly reads: string;
  readonly who: string;
  readonly kind: 'stomp' | 'message' | 'contact' | 'nobody';
  /** Codes of the boxes that it speaks of. */
  readonly boxes: readonly string[];
}

/** Something that a foot or hand moves to and fro: a pedal at an expression input, or one that stands in the signal. */
export type PedalView = { readonly text: string; readonly about: string } & (
  | {
      readonly is: 'expression';
      readonly device: Id<'device'>;
      readonly jack: string;
      /** 0 heel to 127 toe; absent until it is touched. */ readonly at?: number;
    }
  | { readonly is: 'control'; readonly control: Ref; readonly min: number; readonly max: number; readonly at: number }
);

/** The bench as the screen shows it. Plain data. */
export interface BenchView {
  readonly now: string;
  /** Something goes on as time goes by: bytes are on their way, or a box is still loading. */
  readonly busy: boolean;
  readonly bank: string;
  readonly floor: readonly SwitchView[];
  readonly pedals: readonly PedalView[];
  readonly boxes: readonly BoxView[];
  readonly wire: readonly WireLine[];
  readonly run: readonly Item[];
  /** How loud it is behind each box as all stands now. */
  readonly levels: LevelsShown;
  /** What the last stomp did to what is heard. */
  readonly audio: readonly string[];
  /** What a foot still holds, whatever sound was called since. */
  readonly held: readonly string[];
  /** What went wrong and can be put right. */
  readonly wrong: readonly { readonly text: string; readonly right: Fault }[];
  /**
   * The sound that is loaded on the first controller, or in the first list where no foot calls, and what is wrong with
   * it right now.
   */
  readonly sound?: {
    readonly id: Id<'sound'>;
    readonly name: string;
    readonly wrong: readonly string[];
    /** Where it is to be heard and is not. */ readonly silentAt: readonly string[];
  };
}

/** How the bench stood at one moment: what the next view is compared with. */
export interface Moment {
  readonly state: ReadonlyMap<Ref, Value>;
  readonly traced: Trace;
  readonly at: number;
}

const MOST_LINES = 400;
/** A pause this short is not heard as one (common practice). */
const UNHEARD_US = 5000;

const heardOn = (d: Derived, anatomy: Anatomy, state: ReadonlyMap<Ref, Value>): Trace => {
  const heeds = d.compilation.sounds.values().next().value?.heard ?? [];
  return trace(
    anatomy.wiring,
    state,
    heeds.length ? { from: heeds.map((h) => h.from), to: heeds.map((h) => h.at) } : {},
  );
};

export const momentOf = (d: Derived, bench: Bench): Moment => {
  const state = bench.state();
  return { state, traced: heardOn(d, asItStands(d, bench), state), at: bench.now };
};

export const benchView = (d: Derived, bench: Bench, before?: Moment): BenchView => {
  const anatomy = asItStands(d, bench);
  const state = bench.state();
  const traced = heardOn(d, anatomy, state);
  const callers = all(d.rig, 'device').flatMap((device) =>
    device.memories.flatMap((m) => (m.by ? [{ device, memory: m }] : [])),
  );
  const { device: controller, memory } = mainCaller(d, callers) ?? {};
  const sounds = soundsHere(d.rig, d.hookup.id);
  const sound = controller && memory ? calledNow(sounds, controller, memory, state) : undefined;
  const wired = all(d.rig, 'device').filter((x) => d.anatomy.wiring.wired.has(x.id));
  return {
    now: clock(bench.now),
    busy: !bench.quiet,
    bank: controller && memory?.bank ? String(state.get(ref(controller.id, memory.bank.control))) : '',
    floor: all(d.rig, 'device').flatMap((device) =>
      device.memories.flatMap((m) => (m.by === 'slot' ? floorOf(d.rig, sounds, device, m, state) : [])),
    ),
    pedals: pedalsOf(d, bench, wired, state),
    boxes: wired
      .filter((x) => x.controls.length > 0)
      .map((x) => boxView({ ...d, anatomy }, bench, x, state, before?.state ?? new Map(), traced.onPath)),
    wire: bench.heard.slice(-MOST_LINES).map((h) => wireLine(d.rig, h)),
    run: runOf({ ...d, anatomy }, traced),
    levels: levelsShown(d.rig, traced),
    audio: before ? audioText(d, bench, before, traced, sound ? silentAt(d, traced, sound.id) : []) : [],
    held: heldNow({ ...d, anatomy }, state, traced),
    wrong: wrongNow(d, bench),
    ...(sound
      ? {
          sound: {
            id: sound.id,
            name: sound.name,
            silentAt: silentAt(d, traced, sound.id),
            wrong: wrongOnBench(d, bench, sound.id)
              .filter((control) => !isUnderFoot(d, bench, sound.id, control))
              .map((control) => {
                const wanted = theOne(
                  theOne(d.modelled.system.sounds, (s) => s.id === sound.id).wants,
                  (w) => w.variable === control,
                ).value;
                return `${controlText(d.rig, control)} is ${valueText(d.rig, control, state.get(control) ?? '')}, wanted ${valueText(d.rig, control, wanted)}`;
              }),
          },
        }
      : {}),
  };
};

interface CallingMemory {
  readonly device: Device;
  readonly memory: Memory;
}

/** What calls the sounds on this bench: of several the one that calls most, a controller before a box with presets. */
const mainCaller = (d: Derived, callers: readonly CallingMemory[]): CallingMemory | undefined => {
  const calls = soundsHere(d.rig, d.hookup.id).flatMap((s) => s.calls);
  const count = ({ device, memory }: CallingMemory): number =>
    calls.filter((c) => c.device === device.id && c.memory === memory.id).length;
  const outer = callers.filter(({ memory }) => memory.inside === undefined);
  return [...outer].sort(
    (a, b) => Number(b.memory.by === 'slot') - Number(a.memory.by === 'slot') || count(b) - count(a),
  )[0];
};

/** The sound whose slot is loaded; where it stands in a scene of a preset, that scene too. */
const calledNow = (
  sounds: readonly Sound[],
  device: Device,
  memory: Memory,
  state: ReadonlyMap<Ref, Value>,
): Sound | undefined => {
  const isLoaded = (m: Memory, slot: number): boolean => Number(state.get(ref(device.id, m.control))) === slot;
  const scenes = device.memories.filter((m) => m.inside === memory.id);
  const there = sounds.filter((s) =>
    s.calls.some((c) => c.device === device.id && c.memory === memory.id && isLoaded(memory, c.slot)),
  );
  const sceneOf = (s: Sound) =>
    scenes.flatMap((m) =>
      s.calls.flatMap((c) => (c.device === device.id && c.memory === m.id ? [isLoaded(m, c.slot)] : [])),
    );
  return there.find((s) => sceneOf(s).includes(true)) ?? there.find((s) => sceneOf(s).length === 0);
};

/** Ends at which a sound is to be heard and nothing arrives. */
const silentAt = (d: Derived, traced: Trace, sound: Id<'sound'>): readonly string[] => [
  ...new Set(
    theEntry(d.compilation.sounds, sound).heard.flatMap(({ from, at, as }) =>
      (as === 'sounds' || as === 'stereo') && !traced.reaches.some((r) => r.source.ref === from && r.end.ref === at)
        ? [d.anatomy.wiring.ends.find((e) => e.ref === at)?.end.name ?? splitRef(at).name]
        : [],
    ),
  ),
];

/** A pedal that was moved has it now, somewhere between its heel and its toe. */
const isUnderFoot = (d: Derived, bench: Bench, sound: Id<'sound'>, control: Ref): boolean =>
  theEntry(d.compilation.sounds, sound).pedals.some((p) => {
    const { device, name } = splitRef(p.pedal);
    const value = Number(bench.value(control));
    return (
      p.control === control &&
      bench.pedalAt(device, name) !== undefined &&
      value >= Math.min(p.heel, p.toe) &&
      value <= Math.max(p.heel, p.toe)
    );
  });

/** What the ear notices: where it stops, what rings on, how much louder it gets. */
const audioText = (
  d: Derived,
  bench: Bench,
  before: Moment,
  now: Trace,
  told: readonly string[],
): readonly string[] => {
  const { rig } = d;
  const passes = (t: Trace, id: Id<'device'>) => t.wiring.points.some((p, i) => p.device === id && t.onPath[i]);
  const names = (stages: readonly Ref[]) =>
    [...new Set(stages.map((s) => thePart(rig, splitRef(s).device).name))].join(' and ');
  const silences = bench.silences.filter(
    (s) =>
      s.until - s.from > UNHEARD_US &&
      s.until > before.at &&
      (passes(before.traced, s.device) || passes(now, s.device)),
  );
  const longest = silences.reduce<Silence | undefined>(
    (a, b) => (a && a.until - a.from >= b.until - b.from ? a : b),
    undefined,
  );
  const lost = before.traced.reaches.filter(
    (r) => !now.reaches.some((n) => n.source.ref === r.source.ref && n.end.ref === r.end.ref),
  );
  const { ring, cut } = tailsOf(rig, before.traced, now);
  const step = Math.round(reckonedStep(rig, before.traced, now) * 10) / 10;
  return [
    ...(longest
      ? [
          longest.until > bench.now
            ? `Silent while ${thePart(rig, longest.device).name} loads.`
            : `It stopped for ${(longest.until - longest.from) / 1000} ms while ${thePart(rig, longest.device).name} loaded.`,
        ]
      : []),
    ...[...new Set(lost.map((r) => r.end.end.name))]
      .filter((end) => !told.includes(end))
      .map((end) => `Nothing is heard any more at ${end}.`),
    ...(ring.length ? [`The repeats of ${names(ring)} ring on.`] : []),
    ...(cut.length ? [`The repeats of ${names(cut)} are cut off.`] : []),
    ...(step
      ? [`${Math.abs(step)} dB ${step > 0 ? 'louder' : 'softer'}; what nobody stated counts as set by ear.`]
      : []),
  ];
};

const pedalsOf = (
  { rig, anatomy }: Derived,
  bench: Bench,
  wired: readonly Device[],
  state: ReadonlyMap<Ref, Value>,
): readonly PedalView[] => [
  ...all(rig, 'device').flatMap((x) =>
    x.jacks
      .filter(
        (j) =>
          j.kind === 'expression' &&
          bench.plugged.some((ends) => ends.includes(ref(x.id, j.id))) &&
          (x.memories.length > 0 || x.actuators.some((a) => 'expression' in a.by && a.by.expression === j.id)),
      )
      .map((jack): PedalView => {
        const at = bench.pedalAt(x.id, jack.id);
        return {
          is: 'expression',
          device: x.id,
          jack: jack.id,
          text: `${x.code} ${jack.id}`,
          about: at === undefined ? 'not touched yet' : `${Math.round((at * 100) / 127)} %`,
          ...(at === undefined ? {} : { at }),
        };
      }),
  ),
  ...wired.flatMap((x) =>
    x.controls.flatMap((control): readonly PedalView[] => {
      const { domain } = control;
      if (control.use !== 'play' || !('min' in domain) || !anatomy.wiring.wired.has(x.id)) return [];
      const at = Number(state.get(ref(x.id, control.id)));
      return [
        {
          is: 'control',
          control: ref(x.id, control.id),
          text: x.name,
          about: valueText(rig, ref(x.id, control.id), at),
          min: domain.min,
          max: domain.max,
          at,
        },
      ];
    }),
  ),
];

/** Time since the power came on. @example clock(4_180_960) // '4.180 960' */
export const clock = (us: number): string => {
  const whole = Math.round(us);
  const ms = Math.floor(whole / 1000);
  return `${Math.floor(ms / 1000)}.${String(ms % 1000).padStart(3, '0')} ${String(whole % 1000).padStart(3, '0')}`;
};

/** The program under a number; of scenes the one in the preset that is loaded. */
const loadedFrom = (
  d: Derived,
  device: Device,
  memory: Memory,
  number: number,
  state: ReadonlyMap<Ref, Value>,
): Program | undefined => {
  const around = memoryIn(device, memory.inside);
  const of = around && Number(state.get(ref(device.id, around.control)));
  return [...d.modelled.programs].find(
    (p) =>
      p.device === device.id && p.memory === memory.id && p.number === number && (p.of === undefined || p.of === of),
  );
};

const boxView = (
  d: Derived,
  bench: Bench,
  device: Device,
  state: ReadonlyMap<Ref, Value>,
  before: ReadonlyMap<Ref, Value>,
  onPath: Uint8Array,
): BoxView => {
  /** Amounts in the player's hands stand under the floor, as pedals. */
  const shownControls = device.controls.filter(
    (c) => !/^(bank|held-|latch-)/.test(c.id) && (c.use !== 'play' || 'values' in c.domain),
  );
  const loops = shownControls.filter((c) => /^loop\d+$/.test(c.id));
  const value = (control: string) => state.get(ref(device.id, control));
  const isChanged = (control: string) =>
    before.size > 0 && String(before.get(ref(device.id, control))) !== String(value(control));
  const says = shownControls
    .filter((c) => !loops.includes(c) && c.id !== 'order')
    .map((c) => {
      const r = ref(device.id, c.id);
      const memory = memoryChosenBy(device, c.id);
      const program = memory && loadedFrom(d, device, memory, Number(value(c.id)), state);
      return {
        text: `${c.name ?? c.id} ${valueText(d.rig, r, value(c.id) ?? '')}${program ? ` “${program.name}”` : ''}`,
        changed: isChanged(c.id),
      };
    });
  return {
    device: device.id,
    code: device.code,
    name: device.name,
    says: [
      ...(loops.length
        ? [
            {
              text: `loops ${loops.map((c) => (value(c.id) === 'on' ? c.id.slice(4) : '·')).join(' ')}`,
              changed: loops.some((c) => isChanged(c.id)),
            },
          ]
        : []),
      ...says,
    ],
    outside: !d.anatomy.wiring.points.some((p, i) => p.device === device.id && onPath[i]),
    dark: bench.dark.has(device.id),
    feet: device.memories.some((m) => m.by === 'slot')
      ? []
      : [
          ...new Set(
            device.actuators.flatMap((a) => ('foot' in a.by ? [a.by.foot] : 'hand' in a.by ? [a.by.hand] : [])),
          ),
        ],
  };
};

const NOT_HEARD = 'nobody';

const wireLine = (rig: Rig, h: MonitorLine): WireLine => {
  const code = (id: Id<'device'>) => partOf(rig, id)?.code ?? id;
  const line = (from: readonly Id<'device'>[], more: Omit<WireLine, 'at' | 'boxes'>): WireLine => ({
    at: clock(h.at),
    boxes: from.map(code),
    ...more,
  });
  if (h.is === 'stomp')
    return line([h.device], { bytes: '', reads: `${code(h.device)}: ${h.what}`, who: '', kind: 'stomp' });
  if (h.is === 'clock')
    return line([h.from], {
      bytes: 'F8',
      reads: `${code(h.from)}: clock, ${h.bpm} beats a minute`,
      who: '',
      kind: 'message',
    });
  if (h.is === 'fault') return line([], { bytes: '', reads: h.what, who: '', kind: 'nobody' });
  if (h.is === 'contact')
    return line([h.device], {
      bytes: '',
      reads: `${code(h.device)} ${h.jack} ${h.closed ? 'closes' : 'opens'}`,
      who: '',
      kind: 'contact',
    });
  const { status, channel, data } = h.read;
  const reads =
    status === 0xc
      ? `ch ${channel} program ${data[0]}`
      : status === 0xb
        ? `ch ${channel} controller ${data[0]} = ${data[1]}`
        : `ch ${channel} status ${status.toString(16).toUpperCase()}`;
  const reacts = h.reacts.map((id) => {
    const memory = partOf(rig, id)?.memories[0];
    return status === 0xc && memory ? `${code(id)} shows ${shown(memory.shows, theFirst(data))}` : code(id);
  });
  const who =
    [reacts.join(', '), (h.missed ?? []).map((id) => `${code(id)} misses it while it loads`).join(', ')]
      .filter(Boolean)
      .join('; ') || NOT_HEARD;
  return line([h.from, ...h.reacts, ...(h.missed ?? [])], {
    bytes: h.bytes,
    reads,
    who,
    kind: reacts.length && !h.missed ? 'message' : 'nobody',
  });
};
