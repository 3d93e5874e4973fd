import { saysNumbers, shown } from '../../midi/numbering.js';
import { jumpOf } from '../../recall/actuate/pedals.js';
import { controlText, valueText } from '../../recall/words/words.js';
import { restingValue } from '../../signal/graph/state.js';
import type { Act } from '../../rig/act.js';
import { controlIn, makesSound, type Device, type Memory } from '../../rig/device.js';
import { inDomain } from '../../rig/domain.js';
import { ref, type Id } from '../../rig/ids.js';
import type { Program, Sweep } from '../../rig/program.js';
import type { Value } from '../../rig/value.js';
import { all, partOf, programsOf, soundsInOrder } from '../../rig/rig.js';
import type { Ticked } from '../../rig/show.js';
import { cutTo, LONGEST } from '../../rig/limits.js';
import { goneOf, tickedOf, tickOf } from '../../edits/ticks.js';
import type { Meant } from '../../recall/intend/compiled.js';
import type { Derived } from '../steps/deriver.js';
import { actBytes } from './view.js';
import { inKeyOrder, printOf } from '../../known/print.js';
import { surely, theFirst } from '../../known/the.js';
import { theControl } from '../../rig/box.js';

/** One thing to type into a box, as the person in front of it meets it. */
export interface TypeLine {
  readonly text: string;
  /** What it stands for in the box, also what a tick remembers: only another meaning opens the line again. */
  readonly is: string;
  readonly bytes?: string;
  /** What it is for. */
  readonly why?: string;
  readonly ticked?: Ticked;
}

export interface TypeSlot {
  readonly memory: string;
  readonly number: number;
  /** For a scene the program that it belongs to. */
  readonly of?: number;
  /** As the box shows it. */
  readonly shown: string;
  readonly name: string;
  /** Sounds that call it. */
  readonly sounds: readonly Id<'sound'>[];
  /** Somebody wrote down what stands in the box; otherwise Yunta planned it. */
  readonly typed: boolean;
  readonly lines: readonly TypeLine[];
  /** Ticked off once, and the program reads otherwise now. */
  readonly gone: readonly string[];
  /** What it holds is not known here: nothing to type, but it must be there. */
  readonly unknown: boolean;
  /** As it stands in the box, or as it is planned; undefined when nobody wrote it down. */
  readonly program: Program | undefined;
}

export interface TypeBox {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly code: string;
  readonly name: string;
  /** It calls sounds: its slots are typed in. Otherwise it is called, and its programs are dialled in. */
  readonly isController: boolean;
  readonly counts: string;
  readonly channel: string;
  readonly slots: readonly TypeSlot[];
  readonly lines: number;
  readonly open: number;
}

/**
 * What every controller and every box with programs must hold, box by box and slot by slot, with what is ticked off.
 */
export const typeIn = (d: Derived): readonly TypeBox[] =>
  all(d.rig, 'device')
    .flatMap((device) =>
      device.memories
        .filter((m) => !m.inside)
        .flatMap((memory): readonly TypeBox[] => {
          const slots = slotsIn(d, device, memory);
          if (slots.length === 0) return [];
          const lines = slots.flatMap((s) => s.lines);
          return [
            {
              device: device.id,
              memory: memory.id,
              code: device.code,
              name: device.name,
              isController: memory.by !== undefined && !makesSound(device),
              counts: saysNumbers(memory.shows, memory.size),
              channel:
                typeof device.midi?.channel === 'number'
                  ? `MIDI channel ${device.midi.channel}${device.midi.omni ? ', answers to all' : ''}`
                  : '',
              slots,
              lines: lines.length,
              open: lines.filter((l) => !l.ticked).length,
            },
          ];
        }),
    )
    .sort((a, b) => Number(b.isController) - Number(a.isController));

/** What a memory must hold: what sounds store there, what they only call there, and each scene after its program. */
const slotsIn = (d: Derived, device: Device, memory: Memory): readonly TypeSlot[] => {
  if (memory.by === undefined) return ownPrograms(d, device, memory);
  const stored = storedSlots(d, device, memory);
  if (!makesSound(device)) return stored;
  const taken = new Set(stored.map((s) => s.number));
  const called = ownPrograms(d, device, memory).filter((s) => !taken.has(s.number));
  const scenes = device.memories
    .filter((m) => m.inside === memory.id)
    .flatMap((inner) =>
      storedSlots(d, device, inner).map((s) => ({ ...s, shown: `${shown(memory.shows, s.of ?? 0)} scene ${s.shown}` })),
    );
  return [...stored, ...called]
    .sort((a, b) => a.number - b.number)
    .flatMap((s) => [s, ...scenes.filter((scene) => scene.of === s.number)]);
};

/** The slots of a controller, by number: planned by Yunta, or as somebody typed them. */
const storedSlots = (d: Derived, device: Device, memory: Memory): readonly TypeSlot[] => {
  const bySlot = new Map<
    string,
    {
      readonly program: Program;
      readonly typed: boolean;
      readonly meant: readonly Meant[];
      readonly sounds: Id<'sound'>[];
    }
  >();
  for (const sound of soundsInOrder(d.rig)) {
    for (const stored of d.compilation.sounds.get(sound.id)?.stored ?? []) {
      const { program } = stored;
      if (program.device !== device.id || program.memory !== memory.id) continue;
      const place = `${program.of ?? ''} ${program.number}`;
      const known = bySlot.get(place);
      if (known) known.sounds.push(sound.id);
      else bySlot.set(place, { ...stored, sounds: [sound.id] });
    }
  }
  return [...bySlot.values()]
    .sort((a, b) => a.program.number - b.program.number)
    .map(({ program, typed, meant, sounds }) =>
      slotOf(d, device, memory, program.number, program, sounds, typed, [
        nameLine(memory, program.name),
        ...contentLines(d, device, memory, program),
        ...program.acts.map((act, i) => actLine(d, device, act, typed ? undefined : meant[i])),
        ...program.assigns.flatMap((a) => [assignLine(d, device, a), ...remindersFor(memory, a.switch)]),
        ...reminderLines(memory),
        ...(program.sweeps ?? []).map((s) => sweepLine(d, program, s, sounds[0])),
      ]),
    );
};

/** Programs of an effect that sounds call, or that somebody wrote down. */
const ownPrograms = (d: Derived, device: Device, memory: Memory): readonly TypeSlot[] => {
  const calls = new Map<number, Id<'sound'>[]>();
  for (const { sound, wants } of d.compilation.sounds.values()) {
    const want = wants.find((w) => w.control === ref(device.id, memory.control));
    if (want && Number.isInteger(Number(want.value)))
      calls.set(Number(want.value), [...(calls.get(Number(want.value)) ?? []), sound]);
  }
  const written = new Map(programsOf(d.rig, device.id, memory.id).map((p) => [p.number, p]));
  return [...new Set([...calls.keys(), ...written.keys()])]
    .sort((a, b) => a - b)
    .map((number) => {
      const program = written.get(number);
      const known = program !== undefined && program.contents !== 'unplanned';
      return slotOf(
        d,
        device,
        memory,
        number,
        program,
        calls.get(number) ?? [],
        known,
        known ? [nameLine(memory, program.name), ...contentLines(d, device, memory, program)] : [],
      );
    });
};

const slotOf = (
  d: Derived,
  device: Device,
  memory: Memory,
  number: number,
  program: Program | undefined,
  sounds: readonly Id<'sound'>[],
  typed: boolean,
  lines: readonly TypeLine[],
): TypeSlot => {
  const of = program?.of === undefined ? {} : { of: program.of };
  const ticked = tickOf(d.rig, { device: device.id, memory: memory.id, number, ...of })?.lines ?? {};
  return {
    memory: memory.id,
    number,
    ...of,
    shown: shown(memory.shows, number),
    name: program?.name ?? '',
    program,
    sounds,
    typed,
    unknown: lines.length === 0,
    lines: lines.map((l) => {
      const how = tickedOf(ticked, l);
      return how ? { ...l, ticked: how } : l;
    }),
    gone: goneOf(ticked, lines),
  };
};

/** The name as its display shows it. */
const nameLine = (memory: Memory, name: string): TypeLine => {
  const shownName = [...name].slice(0, memory.limits?.nameLength ?? LONGEST.name).join('');
  return { text: `name “${shownName}”`, is: `name=${shownName}` };
};

const contentLines = (d: Derived, device: Device, memory: Memory, { contents }: Program): readonly TypeLine[] => {
  if (contents === 'unplanned') return [];
  if (memory.by !== undefined && makesSound(device)) return dialLines(d, device, memory, contents);
  const loops = memory.stores.filter((c) => /^loop\d+$/.test(c) && inDomain(theControl(device, c), 'on'));
  const on = loops.filter((c) => contents[c] === 'on').map((c) => c.slice('loop'.length));
  const rest = memory.stores
    .filter((c) => !loops.includes(c) && contents[c] !== undefined)
    .flatMap((c): readonly TypeLine[] => {
      const control = theControl(device, c);
      const value = surely(contents[c]);
      if ('arrange' in control.domain)
        return String(value) === String(restingValue(control))
          ? []
          : [{ text: `order ${String(value).replaceAll('loop', '')}`, is: `${c}=${value}` }];
      const said = `${control.name ?? c} ${valueText(d.rig, ref(device.id, c), value)}`;
      return memory.by === undefined || String(value) !== String(restingValue(control))
        ? [{ text: said, is: `${c}=${value}` }]
        : [];
    });
  return [
    ...(loops.length
      ? [
          {
            text: on.length ? `loops on ${on.join(' ')}, the others off` : 'all loops off',
            is: `loops=${on.join(' ')}`,
          },
        ]
      : []),
    ...rest,
  ];
};

/** What of a box that makes the sound is on, and where its amounts stand: as one dials a preset in. */
const dialLines = (
  d: Derived,
  device: Device,
  memory: Memory,
  contents: Readonly<Record<string, Value>>,
): readonly TypeLine[] => {
  const held = memory.stores.filter((c) => contents[c] !== undefined);
  const switched = held.filter((c) => ['off', 'on'].every((v) => inDomain(theControl(device, c), v)));
  const nameOf = (c: string): string => theControl(device, c).name ?? c;
  const on = switched.filter((c) => contents[c] === 'on');
  const rest = held.filter((c) => !switched.includes(c));
  /** Which of two amps sounds is always said; an open contact, a level in the middle, the usual order are not. */
  const atRest = (c: string): boolean => {
    const control = theControl(device, c);
    const isQuiet = 'min' in control.domain || 'arrange' in control.domain || inDomain(control, 'closed');
    return isQuiet && String(contents[c]) === String(restingValue(control));
  };
  return [
    ...(switched.length
      ? [
          {
            text: on.length ? `on: ${on.map(nameOf).join(', ')}; the others off` : 'everything off',
            is: `on=${on.join(' ')}`,
          },
        ]
      : []),
    ...rest
      .filter((c) => !atRest(c))
      .map((c) => ({
        text: `${nameOf(c)} ${valueText(d.rig, ref(device.id, c), surely(contents[c]))}`,
        is: `${c}=${surely(contents[c])}`,
      })),
  ];
};

const actText = (d: Derived, device: Device, act: Act): string => {
  if ('pulse' in act) return `a pulse on ${act.pulse}`;
  if ('control' in act) {
    const name = controlIn(device, act.control)?.name ?? act.control;
    return 'set' in act ? `${name} ${valueText(d.rig, ref(device.id, act.control), act.set)}` : `turns ${name} over`;
  }
  if (!('send' in act)) return 'something else';
  const { send, afterMs } = act;
  const pause = afterMs ? `after ${afterMs} ms: ` : '';
  if ('bpm' in send) return `${pause}tempo ${send.bpm}`;
  if ('cc' in send) return `${pause}channel ${send.channel}, controller ${send.cc} = ${send.value}`;
  const number = send.pc + 128 * (send.bank ?? 0);
  const boxes = all(d.rig, 'device').filter((x) => x.midi?.channel === send.channel && x.memories.length);
  const display = boxes.map((x) => `${x.code} shows ${shown(theFirst(x.memories).shows, number)}`).join(', ');
  return `${pause}channel ${send.channel}, ${send.bank === undefined ? '' : `bank ${send.bank}, `}program ${send.pc} on the wire${display ? `, ${display}` : ''}`;
};

/** What stands in the box, whatever words say it: the same for the same bytes, times, jacks and values. */
const meaning = (of: object): string => {
  const text = inKeyOrder(of);
  return text.length <= LONGEST.line ? text : printOf(text);
};

const actLine = (d: Derived, device: Device, act: Act, meant: Meant | undefined): TypeLine => {
  const bytes = actBytes(act);
  return {
    text: actText(d, device, act),
    is: meaning(act),
    ...(bytes ? { bytes } : {}),
    ...(meant ? { why: `${partOf(d.rig, meant.device)?.name ?? ''}: ${meant.text}` } : {}),
  };
};

/** What a pedal moves, with the numbers that go into the controller. */
const sweepLine = (d: Derived, program: Program, sweep: Sweep, sound: Id<'sound'> | undefined): TypeLine => {
  const swept = (sound && d.compilation.sounds.get(sound)?.pedals)?.find(
    (p) => p.by === sweep || JSON.stringify(p.by) === JSON.stringify(sweep),
  );
  const what =
    'control' in sweep
      ? controlText(d.rig, ref(program.device, sweep.control))
      : `channel ${sweep.channel}, controller ${sweep.cc}`;
  const bent = sweep.curve && sweep.curve !== 'line' ? `, ${sweep.curve} at the heel` : '';
  return {
    text: `pedal ${sweep.jack}: ${what}, heel ${sweep.heel}, toe ${sweep.toe}${bent}`,
    is: meaning(sweep),
    ...(swept
      ? {
          why: `${controlText(d.rig, swept.control)} from ${valueText(d.rig, swept.control, swept.heel)} to ${valueText(d.rig, swept.control, swept.toe)}; at first touch it can jump by ${jumpOf(swept)}`,
        }
      : {}),
  };
};

/** What is easily forgotten of every program: it stays ticked as long as the words are the same. */
const reminderLines = ({ reminders }: Memory): readonly TypeLine[] =>
  (reminders?.program ?? []).map((text) => ({ text: cutTo(text, LONGEST.line), is: meaning({ reminder: text }) }));

const remindersFor = ({ reminders }: Memory, name: string): readonly TypeLine[] =>
  (reminders?.assign ?? []).map((text) => ({
    text: cutTo(`switch ${name}: ${text}`, LONGEST.line),
    is: meaning({ reminder: text, switch: name }),
  }));

const assignLine = (
  d: Derived,
  device: Device,
  { switch: name, latch, on, off }: Program['assigns'][number],
): TypeLine => {
  const list = (acts: readonly Act[]) => acts.map((a) => actText(d, device, a)).join('; ') || 'nothing';
  return {
    text: cutTo(
      `switch ${name}, ${latch ? 'latched' : 'while held'}: on: ${list(on)}; off: ${list(off)}`,
      LONGEST.line,
    ),
    is: meaning({ name, latch, on, off }),
  };
};
