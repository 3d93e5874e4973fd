import { shown, wireOf } from '../midi/numbering.js';
import { making, type Making } from '../change/edit.js';
import { clearWant, setWantIn, type Scope } from '../edits/sounds.js';
import { countsBeats } from '../recall/intend/beats.js';
import type { Control, Device, Domain, Memory } from '../rig/device.js';
import { ref, splitRef, type Ref } from '../rig/ids.js';
import { mostBeside, readArrangement, slotsOf } from '../signal/graph/arrangement.js';
import { readOrder } from './order-words.js';
import { inDomain, domainText } from '../rig/domain.js';
import { ok, refuse, type Result } from '../rig/result.js';
import { all, thePart, type Rig } from '../rig/rig.js';
import type { Sound, Want } from '../rig/sound.js';
import type { Column } from './sound-sheet.js';
import { theItem, theFirst } from '../known/the.js';
import { theControl, memoryChosenBy } from '../rig/box.js';

/** Every expression input of the rig. */
export const expressionInputs = (rig: Rig): readonly { readonly input: Ref; readonly text: string }[] =>
  all(rig, 'device').flatMap((d) =>
    d.jacks
      .filter((j) => j.kind === 'expression' && d.memories.some((m) => m.by))
      .map((j) => ({ input: ref(d.id, j.id), text: `${d.code} ${j.id}` })),
  );

const SAYS_IN = new Set(['●', 'x', '1', 'in', 'on', 'yes', 'y', '*']);
const SAYS_OUT = new Set(['·', '.', '0', '-', '–', 'out', 'off', 'no', 'n']);

/** Typed for "in" or "on". */
export const saysIn = (typed: string): boolean => SAYS_IN.has(typed.toLowerCase());
/** Typed for "out" or "off". */
export const saysOut = (typed: string): boolean => SAYS_OUT.has(typed.toLowerCase());

type Of<K extends Column['is']> = Extract<Column, { readonly is: K }>;

/** One cell that is typed into. */
interface Typing<C extends Column = Column> {
  readonly rig: Rig;
  readonly sound: Sound;
  readonly column: C;
  readonly typed: string;
  readonly scope: Scope;
}

const wants = ({ sound, scope }: Typing, want: Want): Result<Making<Sound>> => ok(setWantIn(sound, want, scope));

const refused = ({ sound, column }: Typing, wrong: string, would: string): Result<Making<Sound>> =>
  refuse({ code: 'cell', part: sound.id, where: column.title, wrong, would });

/**
 * What typing a text into a cell does, in every hook-up or in the one that is shown. An empty text takes back what the
 * sound itself said there.
 */
export const typeInto = (rig: Rig, sound: Sound, column: Column, text: string, scope: Scope): Result<Making<Sound>> => {
  const cell = { rig, sound, typed: text.trim(), scope };
  switch (column.is) {
    case 'one of':
      return typeChannel({ ...cell, column });
    case 'stage':
      return typeStage({ ...cell, column });
    case 'program':
    case 'amount':
      return typeValue({ ...cell, column });
  }
};

/** The name of a channel, or its number; the others are out where that has to be said. */
const typeChannel = (cell: Typing<Of<'one of'>>): Result<Making<Sound>> => {
  const { sound, column, typed, scope } = cell;
  const cleared = column.stages.reduce((s, stage) => clearWant(s, stage, scope).put[0], sound);
  if (typed === '') return ok(making(cleared));
  const isMeant = (name: string, i: number): boolean =>
    name.toLowerCase().startsWith(typed.toLowerCase()) || String(i + 1) === typed;
  const found = column.names.findIndex(isMeant);
  if (found < 0) return refused(cell, `"${typed}" is no channel of it.`, `Type ${column.names.join(' or ')}.`);
  const others = scope.only ? column.stages.filter((_, i) => i !== found) : [];
  const only = others.reduce((s, stage) => setWantIn(s, { stage, is: 'out' }, scope).put[0], cleared);
  return ok(setWantIn(only, { stage: theItem(column.stages, found), is: 'in' }, scope));
};

const typeStage = (cell: Typing<Of<'stage'>>): Result<Making<Sound>> => {
  const { sound, column, typed, scope } = cell;
  const { stage } = column;
  if (typed === '') return ok(clearWant(sound, stage, scope));
  if (saysIn(typed)) return wants(cell, { stage, is: 'in' });
  if (saysOut(typed)) {
    const isToBeSaid = sound.parent !== undefined || scope.only || scope.unsaid === 'as it is';
    return isToBeSaid ? wants(cell, { stage, is: 'out' }) : ok(clearWant(sound, stage, scope));
  }
  if (typed === '?' || typed.toLowerCase() === 'any') return wants(cell, { stage, is: 'any' });
  return refused(cell, `"${typed}" says neither in nor out.`, 'Type x for in, - for out, or any.');
};

const typeValue = (cell: Typing<Of<'program' | 'amount'>>): Result<Making<Sound>> => {
  const { rig, sound, column, typed, scope } = cell;
  if (typed === '') return ok(clearWant(sound, column.control, scope));
  if (typed.toLowerCase() === 'any') return wants(cell, { control: column.control, any: true });
  if (typed.toLowerCase() === 'hand') return wants(cell, { control: column.control, hand: true });
  const { device, name } = splitRef(column.control);
  const box = thePart(rig, device);
  const control = theControl(box, name);
  const memory = memoryChosenBy(box, name);
  if (memory) return typeProgram(cell, box, memory);
  if ('values' in control.domain) {
    const found = control.domain.values.find((v) => String(v).toLowerCase() === typed.toLowerCase());
    if (found !== undefined) return wants(cell, { control: column.control, is: found });
    return refused(cell, `"${typed}" is no value of it.`, `Type ${domainText(control)}.`);
  }
  return 'arrange' in control.domain ? typeOrder(cell, control, control.domain) : typeAmount(cell, control);
};

type Arranged = Extract<Domain, { readonly arrange: readonly string[] }>;

/** "3 1 2", or "1 ( 2 | 3 )" where the box can lead ways beside each other. Loops that are not named come last. */
const typeOrder = (
  cell: Typing<Of<'program' | 'amount'>>,
  control: Control,
  { arrange, branches }: Arranged,
): Result<Making<Sound>> => {
  const { typed, column } = cell;
  const order = readOrder(arrange, typed);
  const would = `Type its loops in the order you want, such as ${arrange
    .slice(0, 3)
    .map((slot) => slot.replace(/^loop/, ''))
    .reverse()
    .join(' ')}; or usual.`;
  if (!inDomain(control, order)) return refused(cell, `"${typed}" is no order of its loops.`, would);
  if (mostBeside(readArrangement(order)) > Math.max(1, branches))
    return refused(
      cell,
      branches > 1 ? `It leads at most ${branches} ways beside each other.` : 'It leads no ways beside each other.',
      would,
    );
  const named = slotsOf(readArrangement(order));
  const rest = arrange.filter((slot) => !named.includes(slot));
  return wants(cell, { control: column.control, is: [order, ...rest].join(' ') });
};

const typeProgram = (cell: Typing<Of<'program' | 'amount'>>, box: Device, memory: Memory): Result<Making<Sound>> => {
  const { typed, column } = cell;
  const wire = wireOf(memory.shows, typed, memory.size);
  if (wire !== undefined) return wants(cell, { control: column.control, is: wire });
  const would = `It shows ${shown(memory.shows, 0)} to ${shown(memory.shows, memory.size - 1)}.`;
  return refused(cell, `"${typed}" is not a number that ${box.name} shows.`, would);
};

const number = (text: string): number => Number(text.replace('−', '-').replace(',', '.'));

const BEATS = /^(\d+(?:[.,]\d+)?)\s*beats?$/i;
const OVER = /^([+−-]\d+(?:[.,]\d+)?)\s*over$/i;
const RANGE = /^([+−-]?\d+(?:[.,]\d+)?)\s*(?:–|\.\.|to|-)\s*([+−-]?\d+(?:[.,]\d+)?)$/i;

/** A number, beats, what lies under a pedal, more than the sound it is derived from, or a range. */
const typeAmount = (cell: Typing<Of<'program' | 'amount'>>, control: Control): Result<Making<Sound>> => {
  const { sound, column, typed } = cell;
  const would = `Type ${domainText(control)}.`;
  const beats = BEATS.exec(typed);
  if (beats) {
    const counts = 'min' in control.domain && countsBeats(control.domain.unit);
    if (!counts) return refused(cell, `"${typed}" is a time, and ${column.says} is none.`, would);
    return wants(cell, { control: column.control, note: number(theItem(beats, 1)) });
  }
  if (typed.includes('>')) return typePedal(cell, control);
  const over = OVER.exec(typed);
  if (over) {
    const wrong = `"${typed}" counts from the sound that it is derived from, and it is derived from none.`;
    if (!sound.parent) return refused(cell, wrong, would);
    return wants(cell, { control: column.control, more: number(theItem(over, 1)) });
  }
  const range = RANGE.exec(typed);
  if (range) {
    const [low, high] = [number(theItem(range, 1)), number(theItem(range, 2))];
    const isInside = low <= high && inDomain(control, low) && inDomain(control, high);
    if (isInside) return wants(cell, { control: column.control, between: [low, high] });
    const wrong = `"${typed}" is no range inside ${domainText(control)}.`;
    return refused(cell, wrong, 'Type the lower end first, such as 30–50.');
  }
  const value = number(typed);
  if (!Number.isNaN(value) && inDomain(control, value)) return wants(cell, { control: column.control, is: value });
  const ways = `Type ${domainText(control)}, a range such as 30–50, heel and toe of a pedal such as 10>60, any, or hand.`;
  return refused(cell, `"${typed}" is outside its range.`, ways);
};

const PEDAL = /^([+−-]?\d+(?:[.,]\d+)?)\s*>\s*([+−-]?\d+(?:[.,]\d+)?)\s*(.*)$/;
const CURVE = /^(slow|fast|line)$/i;

/**
 * "10>60 CTL exp1 slow @30": heel, toe, which pedal (when there are several), how it bends, where it stands until it
 * moves.
 */
const typePedal = (cell: Typing<Of<'program' | 'amount'>>, control: Control): Result<Making<Sound>> => {
  const { rig, column, typed } = cell;
  const found = PEDAL.exec(typed);
  if (!found) {
    const wrong = `"${typed}" does not say where heel and toe stand.`;
    return refused(cell, wrong, 'Type heel and toe such as 10>60, then the pedal.');
  }
  const words = theItem(found, 3).split(/\s+/).filter(Boolean);
  const curve = words.find((w) => CURVE.test(w))?.toLowerCase() as 'slow' | 'fast' | 'line' | undefined;
  const at = words.find((w) => w.startsWith('@'))?.slice(1);
  const said = words.filter((w) => !w.startsWith('@') && !CURVE.test(w)).join(' ');
  const inputs = expressionInputs(rig);
  const isOnly = said === '' && inputs.length === 1;
  const input = isOnly ? inputs[0] : inputs.find((i) => i.text.toLowerCase() === said.toLowerCase());
  if (!input) return noPedal(cell, said.toLowerCase());
  const values = [theItem(found, 1), theItem(found, 2), ...(at === undefined ? [] : [at])].map(number);
  if (values.some((v) => Number.isNaN(v) || !inDomain(control, v)))
    return refused(cell, `"${typed}" goes outside its range.`, `Stay within ${domainText(control)}.`);
  return wants(cell, {
    control: column.control,
    pedal: input.input,
    heel: theFirst(values),
    toe: theItem(values, 1),
    ...(curve && curve !== 'line' ? { curve } : {}),
    ...(at === undefined ? {} : { at: theItem(values, 2) }),
  });
};

const noPedal = (cell: Typing, said: string): Result<Making<Sound>> => {
  const inputs = expressionInputs(cell.rig);
  if (inputs.length === 0) {
    const would = 'Add a controller with an expression input in Kit.';
    return refused(cell, 'No controller of this rig has an input for a pedal.', would);
  }
  const wrong = said ? `No pedal input is called "${said}".` : 'Which pedal is meant is not said.';
  return refused(cell, wrong, `Name one of ${inputs.map((i) => i.text).join(', ')}.`);
};
