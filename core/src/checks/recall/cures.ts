import { isNothing, nothing, together, type Edit } from '../../change/edit.js';
import { setWant } from '../../edits/sounds.js';
import { shown } from '../../midi/numbering.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import type { Device, Memory } from '../../rig/device.js';
import type { Program } from '../../rig/program.js';
import { partOf, programsOf, thePart, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';

import type { CheckInputs, Remedy } from '../check.js';
import { grouped } from '../../known/grouped.js';
import type { Broken } from './broken-wants.js';
import { theEntry, theFirst } from '../../known/the.js';
import { controlAt } from '../../rig/box.js';

/**
 * Ways to pin what can come back wrong, by how little they change. Each is offered for trial; only what the prover
 * then finds proved is shown.
 */
export const cures = (inputs: CheckInputs, broken: readonly Broken[]): readonly Remedy[] => [
  ...replanSlots(inputs, broken),
  ...callAProgram(
    inputs,
    broken.map((b) => ({ sound: b.sound, control: b.control, value: b.want.wanted })),
  ),
  ...storeInPrograms(inputs, broken),
  ...sendAlways(inputs, broken),
];

const remedy = (id: string, label: string, edit: Edit, note?: string): readonly Remedy[] =>
  isNothing(edit) ? [] : [{ id, label, promise: 'clears', by: 'program', edit, ...(note ? { note } : {}) }];

/** A slot that was typed in by hand and says something else than its sound wants. */
const replanSlots = ({ rig, compilation }: CheckInputs, broken: readonly Broken[]): readonly Remedy[] => {
  const typed = [...new Set(broken.map((b) => b.sound))].flatMap((id) =>
    theEntry(compilation.sounds, id)
      .stored.filter((s) => s.typed)
      .map((s) => s.program),
  );
  const parts = typed.filter((p) => partOf(rig, p.id));
  return remedy(
    'replan',
    parts.length === 1 ? 'Let Yunta write this slot' : `Let Yunta write these ${parts.length} slots`,
    { put: [], remove: parts.map((p) => p.id) },
    'what was typed into it is planned anew from the sound',
  );
};

const storing = (device: Device, control: string): Memory | undefined =>
  device.memories.find((m) => m.stores.includes(control));

interface Missing {
  readonly sound: Id<'sound'>;
  readonly control: Ref;
  readonly value: string;
}

/**
 * The box holds the value in its programs, and the sound calls none: call one that holds it, or keep a new one for it.
 */
export const callAProgram = ({ rig, compilation }: CheckInputs, missing: readonly Missing[]): readonly Remedy[] => {
  const bySound = grouped(missing, (m) => m.sound);
  const edits: Edit[] = [];
  const labels: string[] = [];
  const used = new Set<string>();
  for (const [id, wants] of bySound) {
    const { device: deviceId } = splitRef(theFirst(wants).control);
    const device = thePart(rig, deviceId);
    const memory = storing(device, splitRef(theFirst(wants).control).name);
    if (!memory || theEntry(compilation.sounds, id).stored.some((s) => s.typed)) continue;
    const program = ref(deviceId, memory.control);
    if (theEntry(compilation.sounds, id).wants.some((w) => w.control === program)) continue;
    const needed = Object.fromEntries(
      wants
        .filter((w) => memory.stores.includes(splitRef(w.control).name))
        .map((w) => [splitRef(w.control).name, w.value]),
    );
    const holding = programsOf(rig, deviceId, memory.id).filter(
      ({ contents }) => contents !== 'unplanned' && Object.entries(needed).every(([c, v]) => String(contents[c]) === v),
    );
    const chosen = holding[0] ?? freshProgram(rig, device, memory, needed, thePart(rig, id).name, used);
    if (!chosen) continue;
    used.add(chosen.id);
    edits.push(
      together(
        holding[0] ? nothing : { put: [chosen], remove: [] },
        setWant(thePart(rig, id), { control: program, is: chosen.number }),
      ),
    );
    labels.push(
      `${thePart(rig, id).name}: call ${device.name} program ${shown(memory.shows, chosen.number)} “${chosen.name}”`,
    );
  }
  return labels.length === 0
    ? []
    : remedy(
        'call-program',
        labels.length === 1 ? theFirst(labels) : `Call a program of its own in ${labels.length} sounds`,
        together(...edits),
        'a program change sets it, whatever was before',
      );
};

const freshProgram = (
  rig: Rig,
  device: Device,
  memory: Memory,
  needed: Readonly<Record<string, Value>>,
  name: string,
  used: ReadonlySet<string>,
): Program | undefined => {
  const taken = new Set(programsOf(rig, device.id, memory.id).map((p) => p.number));
  for (let number = 0; number < memory.size; number += 1) {
    const id: Id<'program'> = `program:${device.id.slice(7, 47)}-${number}`;
    if (taken.has(number) || used.has(id) || partOf(rig, id)) continue;
    const contents = Object.fromEntries(
      memory.stores.flatMap((c) => {
        const value = needed[c];
        return value === undefined ? [] : [[c, realValue(rig, ref(device.id, c), value)]];
      }),
    );
    return { kind: 'program', id, device: device.id, memory: memory.id, number, name, contents, acts: [], assigns: [] };
  }
  return undefined;
};

const realValue = (rig: Rig, control: Ref, value: Value): Value => {
  const domain = controlAt(rig, control)?.domain;
  return domain && 'min' in domain ? Number(value) : value;
};

/**
 * The box could keep the value in its programs but is not told to: store it there, in every program that a sound
 * calls.
 */
const storeInPrograms = ({ rig, compilation }: CheckInputs, broken: readonly Broken[]): readonly Remedy[] => {
  const { device: id, name } = splitRef(theFirst(broken).control);
  const device = thePart(rig, id);
  const memory = device.memories.find((m) => !m.stores.includes(name) && m.mayStore?.includes(name));
  if (!memory) return [];
  const wanted = new Map<number, Value>();
  for (const compiled of compilation.sounds.values()) {
    const program = compiled.wants.find((w) => w.control === ref(id, memory.control));
    const value = compiled.wants.find((w) => w.control === ref(id, name));
    if (program && value) wanted.set(Number(program.value), value.value);
  }
  const programs = programsOf(rig, id, memory.id).map((p): Program => {
    const value = wanted.get(p.number);
    return value === undefined || p.contents === 'unplanned' ? p : { ...p, contents: { ...p.contents, [name]: value } };
  });
  const stored: Device = {
    ...device,
    memories: device.memories.map((m) => (m === memory ? { ...m, stores: [...m.stores, name] } : m)),
    controls: device.controls.map((c) => (c.id === name ? { ...c, powerUp: 'loaded' } : c)),
  };
  return remedy(
    'store',
    `Keep ${controlAt(rig, theFirst(broken).control)?.name ?? name} in the programs of ${device.name}`,
    { put: [stored, ...programs], remove: [] },
    `${programs.length} programs to save again on the box`,
  );
};

/** The box ignores a call of the program that is loaded already: let it reload. */
const sendAlways = ({ rig }: CheckInputs, broken: readonly Broken[]): readonly Remedy[] => {
  const { device: id, name } = splitRef(theFirst(broken).control);
  const device = thePart(rig, id);
  const memory = storing(device, name);
  if (memory?.again !== 'nothing') return [];
  return [
    {
      id: 'reload',
      label: `Find out whether ${device.name} can be told to reload the program that is loaded`,
      promise: 'eases',
      by: 'hand',
    },
  ];
};
