import { orderWords, readOrder } from './order-words.js';
import type { Edit } from '../change/edit.js';
import { shown, wireOf } from '../midi/numbering.js';
import type { Act, Message } from '../rig/act.js';
import { controlIn, makesSound, type Control, type Device, type Memory } from '../rig/device.js';
import { theId, type Id } from '../rig/ids.js';
import { domainText, inDomain } from '../rig/domain.js';
import type { Program } from '../rig/program.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { partOf, programAt, thePart, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { IN, OUT, type Cell, type Typed } from './sound-sheet.js';
import { saysIn, saysOut } from './typed-cell.js';
import { surely, theItem } from '../known/the.js';
import { blankProgram, scenesIn, type ProgramPlace } from './program-rows.js';
import { theMemory } from '../rig/box.js';

/** A column of the sheet of programs of one box: something that its programs hold, or what a slot of it sends. */
export type ProgramColumn = {
  readonly id: string;
  readonly device: Id<'device'>;
  readonly title: string;
  readonly says: string;
} & ({ readonly is: 'switch' | 'value'; readonly control: Control } | { readonly is: 'sends' });

const SWITCHES: ReadonlySet<string> = new Set(['on', 'off']);
const isSwitch = ({ domain }: Control): boolean =>
  'values' in domain && domain.values.length === 2 && domain.values.every((v) => SWITCHES.has(String(v)));

/** A box whose programs can tell others something: a controller, or one with a MIDI output of its own or a contact. */
const canSend = ({ jacks, chains }: Device, memory: Memory): boolean => {
  const passedOn = new Set(chains.flatMap((c) => c.to.map((t) => t.at)));
  return (
    memory.by !== undefined ||
    jacks.some((j) => j.poles.tip === 'out' && (j.kind === 'contact' || (j.kind === 'midi' && !passedOn.has(j.id))))
  );
};

/** What the programs of a memory and their scenes hold, and what they send where the box can send something. */
export const programColumns = (device: Device, memory: Memory): readonly ProgramColumn[] => {
  const base = { device: device.id };
  const held = new Set([memory, ...scenesIn(device, memory)].flatMap((m) => m.stores));
  const stored = [...held].flatMap((id): readonly ProgramColumn[] => {
    const control = controlIn(device, id);
    if (!control) return [];
    const { name = id, domain } = control;
    return [
      {
        ...base,
        id,
        is: isSwitch(control) ? 'switch' : 'value',
        control,
        title: `${device.code} ${name}${'min' in domain && domain.unit ? ` ${domain.unit}` : ''}`,
        says: `${device.name}: ${name}`,
      },
    ];
  });
  const sends: readonly ProgramColumn[] = !canSend(device, memory)
    ? []
    : [
        {
          ...base,
          id: '#sends',
          is: 'sends',
          title: `${device.code} sends`,
          says: `${device.name}: what it sends, as the wire counts`,
        },
      ];
  return [...stored, ...sends];
};

/** What a program holds or sends, as a cell. */
export const programCell = (program: Program, column: ProgramColumn): Cell => {
  const own = program.planned !== true;
  if (column.is === 'sends')
    return { text: program.acts.map((act) => actWords(act, firstOut(program.acts))).join('; '), own };
  const value = program.contents === 'unplanned' ? undefined : program.contents[column.control.id];
  if (value === undefined) return { text: '', own };
  return { text: column.is === 'switch' ? (value === 'on' ? IN : OUT) : valueWords(column.control, value), own };
};

const valueWords = ({ domain }: Control, value: Value): string =>
  'arrange' in domain ? orderWords(domain.arrange, String(value)) : String(value);

const firstOut = (acts: readonly Act[]): string | undefined =>
  acts.flatMap((act) => ('send' in act ? [act.at] : []))[0];

const messageWords = (send: Message): string => {
  if ('bpm' in send) return `tempo ${send.bpm}`;
  if ('cc' in send) return `ch ${send.channel} cc ${send.cc}=${send.value}`;
  return `ch ${send.channel} ${send.bank === undefined ? '' : `bank ${send.bank} `}pc ${send.pc}`;
};

/** An act of a slot in words that can be typed again. */
const actWords = (act: Act, usualOut: string | undefined): string => {
  if ('send' in act)
    return `${act.afterMs ? `wait ${act.afterMs} ` : ''}${messageWords(act.send)}${act.at === usualOut ? '' : ` at ${act.at}`}`;
  if ('pulse' in act) return `pulse ${act.pulse}`;
  return 'control' in act && 'set' in act ? `set ${act.control} ${act.set}` : UNSAID;
};

/** Something that a slot does and that cannot be typed here. */
const UNSAID = '…';

const MESSAGE =
  /^(?:wait\s+(?<wait>\d+)\s+)?(?:tempo\s+(?<bpm>\d+(?:\.\d+)?)|ch(?:annel)?\s*(?<channel>\d+)\s+(?:bank\s*(?<bank>\d+)\s+)?(?:pc\s*(?<pc>\d+)|cc\s*(?<cc>\d+)\s*=\s*(?<value>\d+)))(?:\s+at\s+(?<at>\S+))?$/i;
const PULSE = /^pulse\s+(?<jack>\S+)$/i;
const SET = /^set\s+(?<control>\S+)\s+(?<value>.+)$/i;

/** One thing that a slot sends, as typed; in words what is wrong with it otherwise. */
const readAct = (text: string, device: Device, usualOut: string | undefined): Act | string => {
  const message = MESSAGE.exec(text)?.groups;
  if (message) {
    const number = (name: string) => (message[name] === undefined ? undefined : Number(message[name]));
    const at = message['at'] ?? usualOut ?? device.jacks.find((j) => j.kind === 'midi' && j.poles.tip === 'out')?.id;
    if (!at || !device.jacks.some((j) => j.id === at && j.kind === 'midi'))
      return `${device.name} has no MIDI output${message['at'] ? ` "${message['at']}"` : ''}.`;
    const [channel, bank, pc, cc, value, bpm, wait] = ['channel', 'bank', 'pc', 'cc', 'value', 'bpm', 'wait'].map(
      number,
    );
    if (channel !== undefined && (channel < 1 || channel > 16)) return `"${text}": channels are 1 to 16.`;
    if ([bank, pc, cc, value].some((n) => n !== undefined && n > 127))
      return `"${text}": numbers on the wire are 0 to 127.`;
    const send: Message =
      bpm !== undefined
        ? { bpm }
        : pc !== undefined
          ? { pc, channel: surely(channel), ...(bank === undefined ? {} : { bank }) }
          : { cc: surely(cc), value: surely(value), channel: surely(channel) };
    if (cc !== undefined && bank !== undefined) return `"${text}": a bank goes with a program.`;
    return { send, at, ...(wait ? { afterMs: wait } : {}) };
  }
  const jack = PULSE.exec(text)?.groups?.['jack'];
  if (jack)
    return device.jacks.some((j) => j.kind === 'contact' && j.id === jack.replace(/:ring$/, ''))
      ? { pulse: jack }
      : `${device.name} has no contact "${jack}".`;
  const set = SET.exec(text)?.groups;
  const control = set && controlIn(device, surely(set['control']));
  const value = control && readValue(control, surely(set['value']));
  if (control)
    return value === undefined ? `"${text}": type ${domainText(control)}.` : { control: control.id, set: value };
  return `"${text}" says nothing that a slot can send.`;
};

const readValue = (control: Control, text: string): Value | undefined => {
  const { domain } = control;
  if (isSwitch(control) && (saysIn(text) || saysOut(text))) return saysIn(text) ? 'on' : 'off';
  if ('values' in domain) return domain.values.find((v) => String(v).toLowerCase() === text.toLowerCase());
  const value: Value =
    'min' in domain ? Number(text.replace('−', '-').replace(',', '.')) : readOrder(domain.arrange, text);
  return !Number.isNaN(value) && inDomain(control, value) ? value : undefined;
};

/** What typing a text into a cell makes of a program: it is written down by a person then. */
export const typeIntoProgram = (rig: Rig, program: Program, column: ProgramColumn, text: string): Result<Program> => {
  const { planned: _, ...own } = program;
  const typed = text.trim();
  const device = thePart(rig, program.device);
  const memory = theMemory(device, program.memory);
  const refused = (wrong: string, would: string): Result<Program> =>
    refuse({ code: 'cell', where: column.title, wrong, would });
  if (column.is === 'sends') {
    const usual = firstOut(program.acts);
    if (program.acts.some((act) => actWords(act, usual) === UNSAID))
      return refused('This slot does something that cannot be typed here.', 'Change it in the rig file.');
    const acts =
      typed === ''
        ? []
        : typed
            .split(/\s*;\s*/)
            .filter(Boolean)
            .map((one) => readAct(one, device, usual));
    const wrong = acts.find((act) => typeof act === 'string');
    return wrong === undefined
      ? ok({ ...own, acts: acts as readonly Act[] })
      : refused(wrong, 'Type such as "ch 3 pc 14; wait 150 ch 3 cc 20=64; tempo 120", numbers as the wire counts.');
  }
  const { id } = column.control;
  if (!memory.stores.includes(id)) return typed === '' ? ok(program) : refused(...notStored(device, memory));
  const contents = program.contents === 'unplanned' ? {} : program.contents;
  if (typed === '') {
    if (memory.by !== undefined && !makesSound(device))
      return refused(`A slot of ${device.name} always holds it.`, `Type ${domainText(column.control)}.`);
    const { [id]: _gone, ...rest } = contents;
    return ok({ ...own, contents: Object.keys(rest).length ? rest : 'unplanned' });
  }
  const value = readValue(column.control, typed);
  return value === undefined
    ? refused(`"${typed}" is no value of it.`, `Type ${domainText(column.control)}.`)
    : ok({ ...own, contents: { ...contents, [id]: value } });
};

/** Why a cell cannot be typed, and what to do: a preset and its scenes do not store the same. */
const notStored = (device: Device, memory: Memory): readonly [wrong: string, would: string] =>
  memory.inside === undefined
    ? [`A program of ${device.name} does not store it; its scenes do.`, 'Type it into the rows of its scenes.']
    : [`A scene of ${device.name} does not store it; its program does.`, 'Type it into the row of the program.'];

/**
 * Several cells typed at once: all of them fit or nothing is changed. Slots that Yunta had planned are written down as
 * they read then.
 */
export const typePrograms = (
  rig: Rig,
  rows: readonly Program[],
  columns: readonly ProgramColumn[],
  typed: readonly Typed[],
): Result<Edit, readonly Refusal[]> => {
  const changed = new Map<number, Program>();
  const refused: Refusal[] = [];
  for (const { row, column, text } of typed) {
    const one = typeIntoProgram(rig, changed.get(row) ?? theItem(rows, row), theItem(columns, column), text);
    if (one.ok) changed.set(row, one.value);
    else refused.push({ ...one.error, where: `${theItem(rows, row).name}, ${one.error.where}` });
  }
  return refused.length ? refuse(refused) : ok(putPrograms(rig, [...changed.values()]));
};

const standing = (rig: Rig, p: Pick<Program, 'device' | 'memory' | 'number' | 'of'>): Program | undefined => {
  const there = programAt(rig, p.device, p.memory, p.number, p.of);
  return there?.of === p.of ? there : undefined;
};

/** Writes programs down under ids of their own. */
export const putPrograms = (rig: Rig, programs: readonly Program[]): Edit => ({
  put: programs.map((p) => ({ ...p, id: standing(rig, p)?.id ?? freeId(rig, p) })),
  remove: [],
});

const freeId = (
  rig: Rig,
  { device, memory, number, of }: Pick<Program, 'device' | 'memory' | 'number' | 'of'>,
): Id<'program'> => {
  const plain = theId(
    'program',
    `program:${device.slice('device:'.length).slice(0, 40)}-${memory.slice(0, 12)}${of === undefined ? '' : `-${of}`}-${number}`.toLowerCase(),
  );
  let id = plain;
  for (let n = 2; partOf(rig, id); n += 1) id = `${plain}-${n}`;
  return id;
};

/**
 * A program, or a scene of one, that stands at a number as the box shows it; nothing is known of what it holds yet.
 * @param display such as 12, or 12 scene 3
 */
export const addProgram = (rig: Rig, device: Device, memory: Memory, display: string, name: string): Result<Edit> => {
  const place = placeShownAs(device, memory, display);
  if (!place)
    return refuse({
      code: 'number',
      wrong: `"${display}" is not a number that ${device.name} shows.`,
      would: `It shows ${shown(memory.shows, 0)} to ${shown(memory.shows, memory.size - 1)}${sayScenes(device, memory)}.`,
    });
  const there = standing(rig, { device: device.id, ...place });
  if (there)
    return refuse({
      code: 'number',
      wrong: `${display} of ${device.name} is written down already as "${there.name}".`,
      would: 'Type into its row.',
    });
  return ok(
    putPrograms(rig, [blankProgram(device, place, name || `${place.of === undefined ? 'Program ' : ''}${display}`)]),
  );
};

const SCENE = /^(?<program>.+?)\s+scene\s+(?<scene>\S+)$/i;

const placeShownAs = (device: Device, memory: Memory, display: string): ProgramPlace | undefined => {
  const said = SCENE.exec(display.trim())?.groups;
  const inner = scenesIn(device, memory)[0];
  const number = wireOf(memory.shows, said ? surely(said['program']) : display, memory.size);
  if (number === undefined || (said && !inner)) return undefined;
  if (!said || !inner) return { memory: memory.id, number };
  const scene = wireOf(inner.shows, surely(said['scene']), inner.size);
  return scene === undefined ? undefined : { memory: inner.id, number: scene, of: number };
};

const sayScenes = (device: Device, memory: Memory): string => {
  const inner = scenesIn(device, memory)[0];
  return inner
    ? `, each with scenes, such as ${shown(memory.shows, 0)} scene ${shown(inner.shows, inner.size - 1)}`
    : '';
};

/**
 * No longer written down: Yunta plans a slot of a controller again; of a program of a box it is not known then what it
 * holds.
 */
export const forgetProgram = (rig: Rig, program: Pick<Program, 'device' | 'memory' | 'number' | 'of'>): Edit => {
  const there = standing(rig, program);
  return { put: [], remove: there ? [there.id] : [] };
};
