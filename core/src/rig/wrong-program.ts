import { domainText, inDomain } from './domain.js';
import { wrongActs } from './device-references.js';
import type { Device, Memory } from './device.js';
import { ref, splitRef, type AnyId, type Ref } from './ids.js';
import type { Refusal } from './result.js';
import { partOf, thePart, type Part, type Rig } from './rig.js';
import type { Value } from './value.js';
import { wrong } from './invariants.js';
import { memoryIn } from './box.js';

export const wrongValue = (rig: Rig, part: AnyId, where: string, r: Ref, value: Value): readonly Refusal[] => {
  const { device, name } = splitRef(r);
  const control = partOf(rig, device)?.controls.find((c) => c.id === name);
  if (!control)
    return [
      wrong(
        part,
        where,
        `${r} is not a control of that device.`,
        `Use one of ${(partOf(rig, device)?.controls ?? []).map((c) => c.id).join(', ') || 'its controls (it has none)'}.`,
      ),
    ];
  if (inDomain(control, value)) return [];
  return [wrong(part, where, `${JSON.stringify(value)} is outside ${r}.`, `Use ${domainText(control)}.`)];
};

export const duplicates = (names: readonly string[]): readonly string[] => [
  ...new Set(names.filter((n, i) => names.indexOf(n) !== i)),
];

type Program = Extract<Part, { kind: 'program' }>;

const named = (names: readonly string[], none: string): string => names.join(', ') || none;

export const wrongInProgram = (rig: Rig, part: Program): readonly Refusal[] => {
  const device = thePart(rig, part.device);
  const memory = memoryIn(device, part.memory);
  if (!memory) {
    const would = `Use ${named(
      device.memories.map((m) => m.id),
      'another device',
    )}.`;
    return [wrong(part.id, 'memory', `${device.name} has no memory "${part.memory}".`, would)];
  }
  const acts = [part.acts, ...part.assigns.flatMap((a) => [a.on, a.off])].flatMap((list) =>
    wrongActs(device, 'acts', list),
  );
  return [
    ...wrongNumber(rig, device, memory, part),
    ...wrongContents(rig, device, memory, part),
    ...wrongSweeps(device, part),
    ...acts.map(({ where, what, would }) => wrong(part.id, where, what, would)),
    ...wrongAssigns(device, memory, part),
  ];
};

const wrongNumber = (rig: Rig, device: Device, memory: Memory, part: Program): readonly Refusal[] => {
  const { id, number } = part;
  const isSame = (p: Program): boolean =>
    p.id !== id && p.device === part.device && p.memory === part.memory && p.number === number && p.of === part.of;
  const beyond = `${number} is beyond the ${memory.size} programs of ${device.name}.`;
  return [
    ...(number >= memory.size ? [wrong(id, 'number', beyond, `Use 0 to ${memory.size - 1}.`)] : []),
    ...[...rig.parts.program.values()].filter(isSame).map((other) => {
      const what = `Program ${number} of ${device.name} is there already as "${other.name}".`;
      return wrong(id, 'number', what, 'Use another number, or change that program.');
    }),
  ];
};

const wrongContents = (rig: Rig, device: Device, memory: Memory, part: Program): readonly Refusal[] => {
  if (part.contents === 'unplanned') return [];
  return Object.entries(part.contents).flatMap(([control, value]) => {
    const where = `contents.${control}`;
    if (memory.stores.includes(control)) return wrongValue(rig, part.id, where, ref(part.device, control), value);
    const what = `${device.name} does not store "${control}" in its programs.`;
    return [wrong(part.id, where, what, `It stores ${named(memory.stores, 'nothing')}.`)];
  });
};

const wrongSweeps = (device: Device, part: Program): readonly Refusal[] => {
  const inputs = device.jacks.filter((j) => j.kind === 'expression').map((j) => j.id);
  return (part.sweeps ?? []).flatMap((sweep) => {
    const noInput = `${device.name} has no expression input "${sweep.jack}".`;
    const isGone = 'control' in sweep && !device.controls.some((c) => c.id === sweep.control);
    const noControl = `${device.name} has no control "${'control' in sweep ? sweep.control : ''}".`;
    return [
      ...(inputs.includes(sweep.jack) ? [] : [wrong(part.id, 'sweeps', noInput, `It has ${named(inputs, 'none')}.`)]),
      ...(isGone ? [wrong(part.id, 'sweeps', noControl, 'Let the pedal move one that it has.')] : []),
    ];
  });
};

const wrongAssigns = (device: Device, memory: Memory, part: Program): readonly Refusal[] => {
  const switches = (memory.assignable ?? []).map((a) => a.switch);
  return part.assigns
    .filter((a) => !switches.includes(a.switch))
    .map((a) => {
      const what = `${device.name} has no switch "${a.switch}" that programs can assign.`;
      return wrong(part.id, 'assigns', what, `It has ${named(switches, 'none')}.`);
    });
};
