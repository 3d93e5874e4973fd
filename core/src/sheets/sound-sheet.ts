import { shown, wireOf } from '../midi/numbering.js';
import type { Edit } from '../change/edit.js';
import { clearWant, setWantIn, type Scope } from '../edits/sounds.js';
import { countsBeats } from '../recall/beats.js';
import { ownWant } from '../recall/wants.js';
import type { Control, Device } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { inDomain, domainText } from '../rig/domain.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import { wantTarget, type Sound, type Want } from '../rig/sound.js';
import type { Value } from '../rig/value.js';
import type { Anatomy } from '../signal/anatomy.js';
import { signalOrder } from '../signal/order.js';

/** A column of the sound sheet: one thing that sounds want of one box. */
export type Column = { readonly id: string; readonly device: Id<'device'>; readonly title: string; readonly says: string } & (
  | { readonly is: 'stage'; readonly stage: Ref }
  /** Stages of which at most one sounds at a time, such as the channels of an amp. */
  | { readonly is: 'one of'; readonly stages: readonly Ref[]; readonly names: readonly string[] }
  | { readonly is: 'program'; readonly control: Ref }
  | { readonly is: 'amount'; readonly control: Ref }
);

export interface Cell {
  /** What it shows: ● in, · out, a number as the box displays it. */
  readonly text: string;
  /** Said by the sound itself; otherwise taken over from its parent, or not said at all. */
  readonly own: boolean;
  /** Where it holds, when that is not everywhere: only in the hook-up that is shown, or here but not in every other. */
  readonly where?: 'only here' | 'not everywhere';
}

export const IN = '●';
export const OUT = '·';
const NOTHING = '';

/**
 * Columns for what is wired in a hook-up, in signal order and so box by box: stages, the program of each box that has programs, amounts of controllers, and every
 * control that some sound or move names.
 * @param more controls that are shown as well
 */
export const sheetColumns = (rig: Rig, anatomy: Anatomy, more: readonly Ref[] = []): readonly Column[] => {
  const named = new Set([...more, ...all(rig, 'sound').flatMap((s) => s.wants.map(wantTarget)), ...all(rig, 'move').flatMap((m) => [...m.on, ...m.off].map(wantTarget))]);
  const order = signalOrder(anatomy);
  const devices = all(rig, 'device').filter((d) => anatomy.wiring.wired.has(d.id)).sort((a, b) => (order.get(a.id) ?? 999) - (order.get(b.id) ?? 999));
  return devices.flatMap((device) => {
    const columns = columnsOf(rig, anatomy, device);
    const known = new Set(columns.map((c) => c.id));
    return [...columns, ...device.controls.filter((c) => named.has(ref(device.id, c.id)) && !known.has(ref(device.id, c.id))).map((c) => controlColumn(device, c))];
  });
};

/** A control as a column of its own. */
export const controlColumn = (device: Device, control: Control): Column => {
  const { id, name = id, domain } = control;
  return { is: 'amount', device: device.id, id: ref(device.id, id), control: ref(device.id, id), title: `${device.code} ${name}${'min' in domain && domain.unit ? ` ${domain.unit}` : ''}`, says: `${device.name}: ${name}` };
};

const columnsOf = (rig: Rig, anatomy: Anatomy, device: Device): readonly Column[] => {
  const stages = [...anatomy.stages.values()].filter((s) => s.device === device.id && !s.always && !s.rides);
  const gated = stages.filter((s) => s.gates.length > 0);
  const base = { device: device.id };
  const columns: Column[] = stages.filter((s) => !gated.includes(s)).map((s) => ({
    ...base, is: 'stage', id: s.ref, stage: s.ref, title: device.code, says: stages.length > 1 ? `${device.name}: ${s.block.id}` : device.name,
  }));
  if (gated.length > 1) {
    columns.push({ ...base, is: 'one of', id: `${device.id}#channels`, title: `${device.code} ch.`, says: `${device.name}: which channel`, stages: gated.map((s) => s.ref), names: gated.map((s) => s.block.id) });
  } else columns.push(...gated.map((s): Column => ({ ...base, is: 'stage', id: s.ref, stage: s.ref, title: device.code, says: `${device.name}: ${s.block.id}` })));
  const called = (control: Ref) => all(rig, 'sound').some((s) => s.calls.some((c) => c.device === splitRef(control).device));
  for (const memory of device.memories) {
    const control = ref(device.id, memory.control);
    if (memory.by !== 'slot') columns.push({ ...base, is: 'program', id: control, control, title: `${device.code} prog`, says: `${device.name}: program, as the box shows it` });
    else if (called(control)) {
      for (const name of memory.stores) {
        const found = device.controls.find((c) => c.id === name);
        if (found && 'min' in found.domain) columns.push({ ...base, is: 'amount', id: ref(device.id, name), control: ref(device.id, name), title: `${name} ${found.domain.unit}`, says: `${device.name}: ${found.name ?? name}` });
      }
    }
  }
  return columns;
};

/** The want that counts in a hook-up: the sound's own, else its nearest forebear's. */
const standingWant = (rig: Rig, sound: Sound, target: Ref, hookup: Id<'hookup'>): { readonly want: Want; readonly own: boolean } | undefined => {
  const seen = new Set<string>();
  for (let one: Sound | undefined = sound; one && !seen.has(one.id); one = one.parent && partOf(rig, one.parent)) {
    const want = ownWant(one, target, hookup);
    if (want) return { want, own: one === sound };
    seen.add(one.id);
  }
  return undefined;
};

const targetsOf = (column: Column): readonly Ref[] => (column.is === 'one of' ? column.stages : [column.is === 'stage' ? column.stage : column.control]);

/** Whether what a sound itself says of these holds in this hook-up alone, or not in all others. */
const whereOf = (sound: Sound, targets: readonly Ref[], hookup: Id<'hookup'>): Pick<Cell, 'where'> => {
  const cases = sound.wants.filter((w) => targets.includes(wantTarget(w))).flatMap((w) => w.in?.hookup ?? []);
  if (cases.includes(hookup)) return { where: 'only here' };
  return cases.length ? { where: 'not everywhere' } : {};
};

/** What a sound wants in a hook-up, as a cell of the sheet. */
export const cellOf = (rig: Rig, sound: Sound, column: Column, hookup: Id<'hookup'>, unsaid: Scope['unsaid'] = 'out'): Cell => {
  const targets = targetsOf(column);
  const where = whereOf(sound, targets, hookup);
  if (column.is === 'one of') {
    const chosen = targets.map((s) => standingWant(rig, sound, s, hookup)).findIndex((w) => w && 'stage' in w.want && w.want.is === 'in');
    return { text: column.names[chosen] ?? NOTHING, own: targets.some((s) => ownWant(sound, s, hookup)), ...where };
  }
  const standing = standingWant(rig, sound, targets[0]!, hookup);
  if (!standing) return { text: column.is === 'stage' && unsaid === 'out' ? OUT : NOTHING, own: false, ...where };
  const { want, own } = standing;
  if ('stage' in want) return { text: want.is === 'in' ? IN : want.is === 'any' ? 'any' : OUT, own, ...where };
  return { text: wantText(rig, want), own, ...where };
};

/** @example wantText(rig, { control: 'device:rev.program', is: 3 }) // '2.1', as the box shows it */
export const wantText = (rig: Rig, want: Exclude<Want, { stage: Ref }>): string => {
  const { device, name } = splitRef(want.control);
  const memory = partOf(rig, device)?.memories.find((m) => m.control === name);
  if ('is' in want && want.is !== undefined) return memory ? shown(memory.shows, Number(want.is)) : String(want.is);
  if ('between' in want) return `${want.between[0]}–${want.between[1]}`;
  if ('hand' in want) return 'hand';
  if ('more' in want) return `${want.more >= 0 ? '+' : '−'}${Math.abs(want.more)} over`;
  if ('pedal' in want) return pedalCell(rig, want);
  if ('note' in want) return `${want.note} beats`;
  return 'any';
};

const pedalCell = (rig: Rig, { pedal, heel, toe, curve, at }: Extract<Want, { pedal: Ref }>): string => {
  const { device, name } = splitRef(pedal);
  return [`${heel}>${toe}`, partOf(rig, device)?.code ?? device, name, ...(curve && curve !== 'line' ? [curve] : []), ...(at === undefined ? [] : [`@${at}`])].join(' ');
};

/** Every expression input of the rig. */
export const expressionInputs = (rig: Rig): readonly { readonly input: Ref; readonly text: string }[] =>
  all(rig, 'device').flatMap((d) => d.jacks.filter((j) => j.kind === 'expression' && d.memories.some((m) => m.by)).map((j) => ({ input: ref(d.id, j.id), text: `${d.code} ${j.id}` })));

const SAYS_IN = new Set(['●', 'x', '1', 'in', 'on', 'yes', 'y', '*']);
const SAYS_OUT = new Set(['·', '.', '0', '-', '–', 'out', 'off', 'no', 'n']);

/** Typed for "in" or "on". */
export const saysIn = (typed: string): boolean => SAYS_IN.has(typed.toLowerCase());
/** Typed for "out" or "off". */
export const saysOut = (typed: string): boolean => SAYS_OUT.has(typed.toLowerCase());

/** What typing a text into a cell does, in every hook-up or in the one that is shown. An empty text takes back what the sound itself said there. */
export const typeInto = (rig: Rig, sound: Sound, column: Column, text: string, scope: Scope): Result<Edit> => {
  const typed = text.trim();
  const wants = (want: Want): Result<Edit> => ok(setWantIn(sound, want, scope));
  const refused = (wrong: string, would: string): Result<Edit> => refuse({ code: 'cell', part: sound.id, where: column.title, wrong, would });
  if (column.is === 'one of') {
    const cleared = column.stages.reduce<Sound>((s, stage) => clearWant(s, stage, scope).put[0] as Sound, sound);
    if (typed === '') return ok({ put: [cleared], remove: [] });
    const found = column.names.findIndex((n, i) => n.toLowerCase().startsWith(typed.toLowerCase()) || String(i + 1) === typed);
    if (found < 0) return refused(`"${typed}" is no channel of it.`, `Type ${column.names.join(' or ')}.`);
    const others = scope.only ? column.stages.filter((_, i) => i !== found) : [];
    const only = others.reduce<Sound>((s, stage) => setWantIn(s, { stage, is: 'out' }, scope).put[0] as Sound, cleared);
    return ok(setWantIn(only, { stage: column.stages[found]!, is: 'in' }, scope));
  }
  if (typed === '') return ok(clearWant(sound, column.is === 'stage' ? column.stage : column.control, scope));
  if (column.is === 'stage') {
    const low = typed.toLowerCase();
    if (saysIn(low)) return wants({ stage: column.stage, is: 'in' });
    if (saysOut(low)) return sound.parent || scope.only || scope.unsaid === 'as it is' ? wants({ stage: column.stage, is: 'out' }) : ok(clearWant(sound, column.stage, scope));
    if (low === 'any' || low === '?') return wants({ stage: column.stage, is: 'any' });
    return refused(`"${typed}" says neither in nor out.`, 'Type x for in, - for out, or any.');
  }
  const { device, name } = splitRef(column.control);
  const box = partOf(rig, device)!;
  const control = box.controls.find((c) => c.id === name)!;
  if (typed.toLowerCase() === 'any') return wants({ control: column.control, any: true });
  if (typed.toLowerCase() === 'hand') return wants({ control: column.control, hand: true });
  const memory = box.memories.find((m) => m.control === name);
  if (memory) {
    const wire = wireOf(memory.shows, typed, memory.size);
    return wire === undefined
      ? refused(`"${typed}" is not a number that ${box.name} shows.`, `It shows ${shown(memory.shows, 0)} to ${shown(memory.shows, memory.size - 1)}.`)
      : wants({ control: column.control, is: wire });
  }
  const { domain } = control;
  if ('values' in domain) {
    const found = domain.values.find((v) => String(v).toLowerCase() === typed.toLowerCase());
    return found === undefined ? refused(`"${typed}" is no value of it.`, `Type ${domainText(control)}.`) : wants({ control: column.control, is: found });
  }
  const read = (text: string): Value => Number(text.replace('−', '-').replace(',', '.'));
  const beats = /^(\d+(?:[.,]\d+)?)\s*beats?$/i.exec(typed);
  if (beats) return 'min' in domain && countsBeats(domain.unit) ? wants({ control: column.control, note: Number(read(beats[1]!)) }) : refused(`"${typed}" is a time, and ${column.says} is none.`, `Type ${domainText(control)}.`);
  if (typed.includes('>')) return underPedal(rig, control, typed, refused, (want) => wants({ control: column.control, ...want }));
  const over = /^([+−-]\d+(?:[.,]\d+)?)\s*over$/i.exec(typed);
  if (over) return sound.parent ? wants({ control: column.control, more: Number(read(over[1]!)) }) : refused(`"${typed}" counts from the sound that it is derived from, and it is derived from none.`, `Type ${domainText(control)}.`);
  const range = /^([+−-]?\d+(?:[.,]\d+)?)\s*(?:–|\.\.|to|-)\s*([+−-]?\d+(?:[.,]\d+)?)$/i.exec(typed);
  if (range) {
    const [low, high] = [Number(read(range[1]!)), Number(read(range[2]!))];
    if (low > high || !inDomain(control, low) || !inDomain(control, high)) return refused(`"${typed}" is no range inside ${domainText(control)}.`, 'Type the lower end first, such as 30–50.');
    return wants({ control: column.control, between: [low, high] });
  }
  const value = read(typed);
  if (Number.isNaN(value) || !inDomain(control, value)) return refused(`"${typed}" is outside its range.`, `Type ${domainText(control)}, a range such as 30–50, heel and toe of a pedal such as 10>60, any, or hand.`);
  return wants({ control: column.control, is: value });
};

/** "10>60 CTL exp1 slow @30": heel, toe, which pedal (when there are several), how it bends, where it stands until it moves. */
const underPedal = (rig: Rig, control: Control, typed: string, refused: (wrong: string, would: string) => Result<Edit>, done: (want: Omit<Extract<Want, { pedal: Ref }>, 'control'>) => Result<Edit>): Result<Edit> => {
  const number = (text: string) => Number(text.replace('−', '-').replace(',', '.'));
  const found = /^([+−-]?\d+(?:[.,]\d+)?)\s*>\s*([+−-]?\d+(?:[.,]\d+)?)\s*(.*)$/.exec(typed);
  const inputs = expressionInputs(rig);
  const names = inputs.map((i) => i.text).join(', ');
  if (!found) return refused(`"${typed}" does not say where heel and toe stand.`, 'Type heel and toe such as 10>60, then the pedal.');
  const words = found[3]!.split(/\s+/).filter(Boolean);
  const curve = words.find((w) => /^(slow|fast|line)$/i.test(w))?.toLowerCase() as 'slow' | 'fast' | 'line' | undefined;
  const at = words.find((w) => w.startsWith('@'))?.slice(1);
  const said = words.filter((w) => !w.startsWith('@') && !/^(slow|fast|line)$/i.test(w)).join(' ').toLowerCase();
  const input = said === '' && inputs.length === 1 ? inputs[0] : inputs.find((i) => i.text.toLowerCase() === said);
  if (!input) return refused(said ? `No pedal input is called "${said}".` : inputs.length ? 'Which pedal is meant is not said.' : 'No controller of this rig has an input for a pedal.', inputs.length ? `Name one of ${names}.` : 'Add a controller with an expression input in Kit.');
  const values = [number(found[1]!), number(found[2]!), ...(at === undefined ? [] : [number(at)])];
  if (values.some((v) => Number.isNaN(v) || !inDomain(control, v))) return refused(`"${typed}" goes outside its range.`, `Stay within ${domainText(control)}.`);
  return done({ pedal: input.input, heel: values[0]!, toe: values[1]!, ...(curve && curve !== 'line' ? { curve } : {}), ...(at === undefined ? {} : { at: values[2]! }) });
};

/** A text typed into one cell of a sheet. */
export interface Typed {
  readonly row: number;
  readonly column: number;
  readonly text: string;
}

/** Several cells typed at once: all of them fit or nothing is changed. @returns the rows that are otherwise now */
export const typeBlock = (rig: Rig, rows: readonly Sound[], columns: readonly Column[], typed: readonly Typed[], scope: Scope): Result<readonly Sound[], readonly Refusal[]> => {
  const changed = new Map<number, Sound>();
  const refused: Refusal[] = [];
  for (const { row, column, text } of typed) {
    const sound = changed.get(row) ?? rows[row]!;
    const one = typeInto(rig, sound, columns[column]!, text, scope);
    if (one.ok) changed.set(row, (one.value.put.at(-1) ?? sound) as Sound);
    else refused.push({ ...one.error, where: `${rows[row]!.name}, ${one.error.where}` });
  }
  return refused.length ? refuse(refused) : ok([...changed.values()]);
};

/** A block copied from a spreadsheet as cells, the first of them at this row and column. @param block cells as text, row by row */
export const pasted = (rows: number, columns: number, at: Pick<Typed, 'row' | 'column'>, block: readonly (readonly string[])[]): Result<readonly Typed[], readonly Refusal[]> => {
  const widest = Math.max(0, ...block.map((r) => r.length));
  const refused: Refusal[] = [];
  if (at.row + block.length > rows) refused.push({ code: 'paste', wrong: `${block.length} rows were pasted; from here on there are ${rows - at.row}.`, would: 'Add sounds first, or copy fewer rows.' });
  if (at.column + widest > columns) refused.push({ code: 'paste', wrong: `${widest} columns were pasted; from here on there are ${columns - at.column}.`, would: 'Copy fewer columns, or paste further to the left.' });
  return refused.length ? refuse(refused) : ok(block.flatMap((cells, r) => cells.map((text, c): Typed => ({ row: at.row + r, column: at.column + c, text }))));
};
