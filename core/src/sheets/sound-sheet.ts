import { shown } from '../midi/numbering.js';
import type { Making } from '../change/edit.js';
import { setReason, type Scope } from '../edits/sounds.js';
import { typeInto } from './typed-cell.js';
import { ownWant } from '../recall/intend/wants.js';
import { controlIn, makesSound, memoriesThatStore, type Control, type Device, type Memory } from '../rig/device.js';
import { keptIn } from '../kept/kept.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import { orderWords } from './order-words.js';
import { wantTarget, type Sound, type Want } from '../rig/sound.js';
import type { Anatomy, Embedded } from '../signal/graph/anatomy.js';
import { signalOrder } from '../signal/graph/order.js';
import { theFirst, theItem } from '../known/the.js';
import { controlAt, isArrangement, memoryChosenBy } from '../rig/box.js';

/** A column of the sound sheet: one thing that sounds want of one box. */
export type Column = {
  readonly id: string;
  readonly device: Id<'device'>;
  readonly title: string;
  readonly says: string;
} & (
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
  /** Why, in the person's words. */
  readonly why?: string;
}

export const IN = '●';
export const OUT = '·';
const NOTHING = '';

/**
 * Columns for what is wired in a hook-up, in signal order and so box by box: stages, the program of each box that has
 * programs, amounts of controllers, and every
 * control that some sound or move names.
 * @param more controls that are shown as well
 */
export const sheetColumns = (rig: Rig, anatomy: Anatomy, more: readonly Ref[] = []): readonly Column[] => {
  const named = new Set([
    ...more,
    ...all(rig, 'sound').flatMap((s) => s.wants.map(wantTarget)),
    ...all(rig, 'move').flatMap((m) => [...m.on, ...m.off].map(wantTarget)),
  ]);
  const order = signalOrder(anatomy);
  const devices = all(rig, 'device')
    .filter((d) => anatomy.wiring.wired.has(d.id))
    .sort((a, b) => (order.get(a.id) ?? 999) - (order.get(b.id) ?? 999));
  return devices.flatMap((device) => {
    const columns = columnsOf(rig, anatomy, device);
    const known = new Set(columns.map((c) => c.id));
    return [
      ...columns,
      ...device.controls
        .filter((c) => named.has(ref(device.id, c.id)) && !known.has(ref(device.id, c.id)))
        .map((c) => controlColumn(device, c)),
    ];
  });
};

/** A control as a column of its own. */
export const controlColumn = (device: Device, control: Control): Column => {
  const { id, name = id, domain } = control;
  return {
    is: 'amount',
    device: device.id,
    id: ref(device.id, id),
    control: ref(device.id, id),
    title: `${device.code} ${name}${'min' in domain && domain.unit ? ` ${domain.unit}` : ''}`,
    says: `${device.name}: ${name}`,
  };
};

const columnsOf = (rig: Rig, anatomy: Anatomy, device: Device): readonly Column[] => {
  const stages = [...anatomy.stages.values()].filter((s) => s.device === device.id && !s.always && !s.rides);
  const gated = stages.filter((s) => s.gates.length > 0);
  const stageColumn = ({ ref: stage, block }: Embedded, isNamed: boolean): Column => ({
    is: 'stage',
    device: device.id,
    id: stage,
    stage,
    title: isNamed ? `${device.code} ${block.id}` : device.code,
    says: isNamed ? `${device.name}: ${block.id}` : device.name,
  });
  const groups = gatedTogether(gated);
  const oneOf = (group: readonly Embedded[], control: string): Column => ({
    is: 'one of',
    device: device.id,
    id: groups.size > 1 ? `${device.id}#${control}` : `${device.id}#channels`,
    title: `${device.code} ${groups.size > 1 ? control : 'ch.'}`,
    says: `${device.name}: which ${groups.size > 1 ? control : 'channel'}`,
    stages: group.map((s) => s.ref),
    names: group.map((s) => s.block.id),
  });
  return [
    ...stages.filter((s) => !gated.includes(s)).map((s) => stageColumn(s, stages.length > 1)),
    ...[...groups].flatMap(([control, group]) =>
      group.length > 1 ? [oneOf(group, control)] : group.map((s) => stageColumn(s, true)),
    ),
    ...waysOf(device).map((control) => controlColumn(device, control)),
    ...device.memories.flatMap((memory) => memoryColumns(rig, device, memory)),
  ];
};

/** With fewer positions a box that does more than select lets the signal through or not: nobody chooses a way by it. */
const SEVERAL_WAYS = 3;

/** Controls by which a sound chooses from where the signal comes and where it goes: amps, inputs, outputs. */
const waysOf = (device: Device): readonly Control[] => {
  const isSelector = device.chains.every((c) => c.slots.length === 0);
  const gates = new Set(
    device.chains
      .flatMap((c) => [c.when, ...c.from.map((tap) => tap.when), ...c.to.map((tap) => tap.when)])
      .flatMap((when) => (when ?? []).flatMap((fact) => ('control' in fact ? [fact.control] : []))),
  );
  return device.controls.filter(
    (c) =>
      c.use === 'sound' &&
      gates.has(c.id) &&
      memoriesThatStore(device, c.id).length > 0 &&
      'values' in c.domain &&
      (isSelector || c.domain.values.length >= SEVERAL_WAYS),
  );
};

/** Stages of which one control says which sounds: the channels of an amp, the two cabinets of a modeller. */
const gatedTogether = (gated: readonly Embedded[]): ReadonlyMap<string, readonly Embedded[]> => {
  const groups = new Map<string, Embedded[]>();
  for (const stage of gated) {
    const controls = stage.gates.flatMap((g) => g.when.flatMap((f) => ('control' in f ? [f.control] : [])));
    keptIn(groups, controls.at(-1) ?? '', (): Embedded[] => []).push(stage);
  }
  return groups;
};

/**
 * The program of a box; of a controller that sounds call, the amounts that its slots hold. Those of a box that makes
 * the sound are many: a column comes with the first sound that says one, or when it is asked for.
 */
const memoryColumns = (rig: Rig, device: Device, memory: Memory): readonly Column[] => {
  const isCalled = all(rig, 'sound').some((s) => s.calls.some((c) => c.device === device.id));
  if (memory.by !== 'slot' || (makesSound(device) && !isCalled && isToldToLoad(device, memory))) {
    const control = ref(device.id, memory.control);
    const [short, word] = memory.inside === undefined ? ['prog', 'program'] : ['scene', 'scene'];
    const says = `${device.name}: ${word}, as the box shows it`;
    return [{ is: 'program', device: device.id, id: control, control, title: `${device.code} ${short}`, says }];
  }
  if (!isCalled || makesSound(device)) return [];
  return memory.stores.flatMap((name): readonly Column[] => {
    const found = controlIn(device, name);
    if (!found || !('min' in found.domain)) return [];
    const control = ref(device.id, name);
    const title = `${found.name ?? name} ${found.domain.unit}`;
    return [
      { is: 'amount', device: device.id, id: control, control, title, says: `${device.name}: ${found.name ?? name}` },
    ];
  });
};

/** Whether messages from other boxes load what a memory holds. */
const isToldToLoad = ({ actuators }: Device, { id }: Memory): boolean =>
  actuators.some((a) => 'midi' in a.by && a.acts.some((act) => 'load' in act && act.load === id));

/** The want that counts in a hook-up: the sound's own, else its nearest forebear's; an order of stages ends that of a switcher. */
const standingWant = (
  rig: Rig,
  sound: Sound,
  target: Ref,
  hookup: Id<'hookup'>,
): { readonly want: Want; readonly own: boolean } | undefined => {
  const seen = new Set<string>();
  for (let one: Sound | undefined = sound; one && !seen.has(one.id); one = one.parent && partOf(rig, one.parent)) {
    const want = ownWant(one, target, hookup);
    if (want) return { want, own: one === sound };
    if (one.order && isArrangement(rig, target)) return undefined;
    seen.add(one.id);
  }
  return undefined;
};

const targetsOf = (column: Column): readonly Ref[] =>
  column.is === 'one of' ? column.stages : [column.is === 'stage' ? column.stage : column.control];

/** Whether what a sound itself says of these holds in this hook-up alone, or not in all others. */
const whereOf = (sound: Sound, targets: readonly Ref[], hookup: Id<'hookup'>): Pick<Cell, 'where'> => {
  const cases = sound.wants.filter((w) => targets.includes(wantTarget(w))).flatMap((w) => w.in?.hookup ?? []);
  if (cases.includes(hookup)) return { where: 'only here' };
  return cases.length ? { where: 'not everywhere' } : {};
};

/** What a sound wants in a hook-up, as a cell of the sheet. */
export const cellOf = (
  rig: Rig,
  sound: Sound,
  column: Column,
  hookup: Id<'hookup'>,
  unsaid: Scope['unsaid'] = 'out',
): Cell => {
  const targets = targetsOf(column);
  const where = whereOf(sound, targets, hookup);
  if (column.is === 'one of') {
    const standing = targets.map((s) => standingWant(rig, sound, s, hookup));
    const chosen = standing.findIndex((w) => w && 'stage' in w.want && w.want.is === 'in');
    return {
      text: column.names[chosen] ?? NOTHING,
      own: targets.some((s) => ownWant(sound, s, hookup)),
      ...where,
      ...whyOf(standing.find((w) => w?.want.why)?.want),
    };
  }
  const standing = standingWant(rig, sound, theFirst(targets), hookup);
  if (!standing) return { text: column.is === 'stage' && unsaid === 'out' ? OUT : NOTHING, own: false, ...where };
  const { want, own } = standing;
  if ('stage' in want)
    return { text: want.is === 'in' ? IN : want.is === 'any' ? 'any' : OUT, own, ...where, ...whyOf(want) };
  return { text: wantText(rig, want), own, ...where, ...whyOf(want) };
};

const whyOf = (want: Want | undefined): Pick<Cell, 'why'> => (want?.why === undefined ? {} : { why: want.why });

/** Says why a cell is as it is, or takes that back; a cell that says nothing itself says it then. */
export const sayWhy = (
  sound: Sound,
  column: Column,
  cell: Cell,
  why: string | undefined,
  scope: Scope,
): Making<Sound> =>
  setReason(
    sound,
    targetsOf(column),
    why,
    scope,
    column.is === 'stage' ? { stage: column.stage, is: cell.text === IN ? 'in' : 'out' } : undefined,
  );

/** Whether a reason can stand beside a cell: it says something itself, or is a stage that is in or out. */
export const mayHaveReason = (column: Column, cell: Cell): boolean => cell.own || column.is === 'stage';

/** @example wantText(rig, { control: 'device:rev.program', is: 3 }) // '2.1', as the box shows it */
export const wantText = (rig: Rig, want: Exclude<Want, { stage: Ref }>): string => {
  const { device, name } = splitRef(want.control);
  const memory = memoryChosenBy(partOf(rig, device), name);
  const domain = controlAt(rig, want.control)?.domain;
  if ('is' in want && domain && 'arrange' in domain) return orderWords(domain.arrange, String(want.is));
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
  return [
    `${heel}>${toe}`,
    partOf(rig, device)?.code ?? device,
    name,
    ...(curve && curve !== 'line' ? [curve] : []),
    ...(at === undefined ? [] : [`@${at}`]),
  ].join(' ');
};

/** A text typed into one cell of a sheet. */
export interface Typed {
  readonly row: number;
  readonly column: number;
  readonly text: string;
}

/** Several cells typed at once: all of them fit or nothing is changed. @returns the rows that are otherwise now */
export const typeBlock = (
  rig: Rig,
  rows: readonly Sound[],
  columns: readonly Column[],
  typed: readonly Typed[],
  scope: Scope,
): Result<readonly Sound[], readonly Refusal[]> => {
  const changed = new Map<number, Sound>();
  const refused: Refusal[] = [];
  for (const { row, column, text } of typed) {
    const sound = changed.get(row) ?? theItem(rows, row);
    const one = typeInto(rig, sound, theItem(columns, column), text, scope);
    if (one.ok) changed.set(row, one.value.put[0]);
    else refused.push({ ...one.error, where: `${theItem(rows, row).name}, ${one.error.where}` });
  }
  return refused.length ? refuse(refused) : ok([...changed.values()]);
};

/**
 * A block copied from a spreadsheet as cells, the first of them at this row and column.
 * @param block cells as text, row by row
 */
export const pasted = (
  rows: number,
  columns: number,
  at: Pick<Typed, 'row' | 'column'>,
  block: readonly (readonly string[])[],
): Result<readonly Typed[], readonly Refusal[]> => {
  const widest = Math.max(0, ...block.map((r) => r.length));
  const refused: Refusal[] = [];
  if (at.row + block.length > rows)
    refused.push({
      code: 'paste',
      wrong: `${block.length} rows were pasted; from here on there are ${rows - at.row}.`,
      would: 'Add sounds first, or copy fewer rows.',
    });
  if (at.column + widest > columns)
    refused.push({
      code: 'paste',
      wrong: `${widest} columns were pasted; from here on there are ${columns - at.column}.`,
      would: 'Copy fewer columns, or paste further to the left.',
    });
  return refused.length
    ? refuse(refused)
    : ok(
        block.flatMap((cells, r) => cells.map((text, c): Typed => ({ row: at.row + r, column: at.column + c, text }))),
      );
};
