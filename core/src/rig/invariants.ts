import { blockIds, domainText, inDomain } from './domain.js';
import { wrongActs, wrongInDevice } from './device-references.js';
import type { Assumption, Hookup } from './hookup.js';
import { isId, kindOf, splitRef, type AnyId, type Id, type Ref } from './ids.js';
import type { Refusal } from './result.js';
import { partOf, type Part, type Rig } from './rig.js';
import { wantTarget, type Move, type Sound, type Want } from './sound.js';
import type { Value } from './value.js';

/** Every part that this one cannot be without. */
export const refersTo = (part: Part): readonly AnyId[] => {
  const known = references.get(part);
  if (known) return known;
  const found = [...new Set(listReferences(part))];
  references.set(part, found);
  return found;
};
const references = new WeakMap<Part, readonly AnyId[]>();

const deviceOf = (r: string): Id<'device'> => splitRef(r).device;
const wantRefs = (wants: readonly Want[]): AnyId[] =>
  wants.flatMap((w) => [deviceOf(wantTarget(w)), ...(w.in ? (Object.values(w.in) as AnyId[]) : []), ...('pedal' in w ? [deviceOf(w.pedal)] : [])]);

const listReferences = (part: Part): readonly AnyId[] => {
  switch (part.kind) {
    case 'program': return [part.device];
    case 'hookup': return [...Object.keys(part.settings).map(deviceOf), ...part.assumes.map((a) => deviceOf(a.control)), ...heardRefs(part.hears)];
    case 'cable': return [part.hookup, ...part.ends.map(deviceOf)];
    case 'sound': return [
      ...(part.parent ? [part.parent] : []), ...(part.level ? [part.level.than] : []), ...wantRefs(part.wants), ...heardRefs(part.hears ?? []),
      ...(part.order ?? []).map(deviceOf), ...part.calls.flatMap((c) => [c.device, ...(c.in ? (Object.values(c.in) as AnyId[]) : [])]),
    ];
    case 'move': return [...(part.sounds === 'all' ? [] : part.sounds), ...part.at.map((a) => a.device), ...wantRefs(part.on), ...wantRefs(part.off)];
    case 'song': return [
      ...(part.instrument ? [part.instrument] : []),
      ...part.cues.flatMap((c): AnyId[] => ('sound' in c.call ? [c.call.sound] : 'move' in c.call ? [c.call.move] : [])),
    ];
    case 'setList': return part.songs;
    case 'standingTest':
    case 'acceptance': return [part.hookup];
    case 'tick': return [part.device];
    case 'about':
    case 'device':
    case 'logEntry': return [];
  }
};
const heardRefs = (hears: readonly { from: string; at: string }[]): AnyId[] =>
  hears.flatMap((h) => [deviceOf(h.at), ...(h.from.startsWith('device:') ? [deviceOf(h.from)] : [])]);

/** What can never be saved, for one part within the rig that would result. */
export const wrongWith = (rig: Rig, part: Part): readonly Refusal[] => {
  const missing = refersTo(part).filter((id) => !partOf(rig, id));
  if (missing.length) return missing.map((id) => lostReference(rig, part, id));
  switch (part.kind) {
    case 'device': return wrongInDevice(part).map(({ where, what, would }) => wrong(part.id, where, what, would));
    case 'program': return wrongInProgram(rig, part);
    case 'hookup': return [
      ...Object.entries(part.settings).flatMap(([r, v]) => wrongValue(rig, part.id, 'settings', r as Ref, v)),
      ...part.assumes.flatMap((a) => wrongValue(rig, part.id, 'assumes', a.control, a.value)),
      ...part.assumes.flatMap((a, i) => contradicts(part, a, i)),
    ];
    case 'cable': return wrongInCable(rig, part);
    case 'sound': return wrongInSound(rig, part);
    case 'move': return [...wrongSwitches(rig, part), ...wrongWants(rig, part.id, 'on', part.on), ...wrongWants(rig, part.id, 'off', part.off)];
    case 'song':
    case 'setList':
    case 'standingTest':
    case 'acceptance':
    case 'tick':
    case 'about':
    case 'logEntry': return [];
  }
};

/** Two things cannot be taken for granted of one control. */
const contradicts = (hookup: Hookup, { control, value }: Assumption, at: number): readonly Refusal[] => {
  const set = hookup.settings[control];
  const other = set !== undefined && String(set) !== String(value) ? set : hookup.assumes.slice(0, at).find((a) => a.control === control && String(a.value) !== String(value))?.value;
  return other === undefined ? [] : [wrong(hookup.id, `assumes.${control}`, `${control.slice('device:'.length)} is taken for granted at ${value}, and ${other} is said of it as well.`, 'Say one of the two.')];
};

const partName = (rig: Rig, id: AnyId): string => {
  const part = partOf(rig, id);
  if (!part) return id;
  return 'name' in part ? part.name : 'title' in part ? part.title : id;
};

const lostReference = (rig: Rig, part: Part, id: AnyId): Refusal => ({
  code: 'reference',
  part: part.id,
  wrong: `${kindWord(part.kind)} ${JSON.stringify(partName(rig, part.id))} needs ${id}, which is not in the rig.`,
  would: `Take the ${kindWord(part.kind)} away in the same change, or keep ${kindWord(kindOf(id))} ${id.slice(id.indexOf(':') + 1)}.`,
});

const KIND_WORDS: Partial<Record<string, string>> = { hookup: 'hook-up', setList: 'set list', logEntry: 'log entry', standingTest: 'standing test' };
const kindWord = (kind: string): string => KIND_WORDS[kind] ?? kind;

const wrong = (part: AnyId, where: string, what: string, would: string): Refusal => ({ code: 'invariant', part, where, wrong: what, would });

const wrongValue = (rig: Rig, part: AnyId, where: string, r: Ref, value: Value): readonly Refusal[] => {
  const { device, name } = splitRef(r);
  const control = partOf(rig, device)?.controls.find((c) => c.id === name);
  if (!control) return [wrong(part, where, `${r} is not a control of that device.`, `Use one of ${(partOf(rig, device)?.controls ?? []).map((c) => c.id).join(', ') || 'its controls (it has none)'}.`)];
  if (inDomain(control, value)) return [];
  return [wrong(part, where, `${JSON.stringify(value)} is outside ${r}.`, `Use ${domainText(control)}.`)];
};

const duplicates = (names: readonly string[]): readonly string[] => [...new Set(names.filter((n, i) => names.indexOf(n) !== i))];

const wrongInProgram = (rig: Rig, part: Extract<Part, { kind: 'program' }>): readonly Refusal[] => {
  const device = partOf(rig, part.device)!;
  const memory = device.memories.find((m) => m.id === part.memory);
  if (!memory) return [wrong(part.id, 'memory', `${device.name} has no memory "${part.memory}".`, `Use ${device.memories.map((m) => m.id).join(', ') || 'another device'}.`)];
  const found: Refusal[] = [];
  if (part.number >= memory.size) found.push(wrong(part.id, 'number', `${part.number} is beyond the ${memory.size} programs of ${device.name}.`, `Use 0 to ${memory.size - 1}.`));
  for (const other of rig.parts.program.values()) {
    if (other.id !== part.id && other.device === part.device && other.memory === part.memory && other.number === part.number && other.of === part.of) {
      found.push(wrong(part.id, 'number', `Program ${part.number} of ${device.name} is there already as "${other.name}".`, 'Use another number, or change that program.'));
    }
  }
  if (part.contents !== 'unplanned') {
    for (const [control, value] of Object.entries(part.contents)) {
      if (!memory.stores.includes(control)) found.push(wrong(part.id, `contents.${control}`, `${device.name} does not store "${control}" in its programs.`, `It stores ${memory.stores.join(', ') || 'nothing'}.`));
      else found.push(...wrongValue(rig, part.id, `contents.${control}`, `${part.device}.${control}` as Ref, value));
    }
  }
  for (const sweep of part.sweeps ?? []) {
    if (!device.jacks.some((j) => j.id === sweep.jack && j.kind === 'expression')) found.push(wrong(part.id, 'sweeps', `${device.name} has no expression input "${sweep.jack}".`, `It has ${device.jacks.filter((j) => j.kind === 'expression').map((j) => j.id).join(', ') || 'none'}.`));
    if ('control' in sweep && !device.controls.some((c) => c.id === sweep.control)) found.push(wrong(part.id, 'sweeps', `${device.name} has no control "${sweep.control}".`, 'Let the pedal move one that it has.'));
  }
  const acts = [part.acts, ...part.assigns.flatMap((a) => [a.on, a.off])].flatMap((list) => wrongActs(device, 'acts', list));
  found.push(...acts.map(({ where, what, would }) => wrong(part.id, where, what, would)));
  for (const { switch: name } of part.assigns) {
    if (!memory.assignable?.some((a) => a.switch === name)) found.push(wrong(part.id, 'assigns', `${device.name} has no switch "${name}" that programs can assign.`, `It has ${(memory.assignable ?? []).map((a) => a.switch).join(', ') || 'none'}.`));
  }
  return found;
};

const wrongInCable = (rig: Rig, part: Extract<Part, { kind: 'cable' }>): readonly Refusal[] => {
  const found: Refusal[] = [];
  part.ends.forEach((end, i) => {
    const { device, name } = splitRef(end);
    const box = partOf(rig, device)!;
    if (!box.jacks.some((j) => j.id === name)) {
      found.push(wrong(part.id, `ends[${i}]`, `${box.name} has no jack "${name}".`, `Use ${box.jacks.map((j) => j.id).join(', ') || 'another device'}.`));
    }
  });
  if (part.ends[0] === part.ends[1]) found.push(wrong(part.id, 'ends', 'Both ends are in the same jack.', 'Plug the other end into another jack.'));
  for (const other of rig.parts.cable.values()) {
    if (other.id === part.id || other.hookup !== part.hookup) continue;
    const taken = part.ends.find((end) => other.ends.includes(end));
    if (taken) found.push(wrong(part.id, 'ends', `${taken.slice('device:'.length)} holds a plug already.`, 'Unplug that cable first, or put a splitter in as a device.'));
  }
  return found;
};

const wrongWants = (rig: Rig, part: AnyId, where: string, wants: readonly Want[]): readonly Refusal[] => [
  ...duplicates(wants.map((w) => `${wantTarget(w)} ${JSON.stringify(w.in ?? {})}`)).map((twice) =>
    wrong(part, where, `${twice.slice(0, twice.indexOf(' '))} is wanted twice in the same case.`, 'Keep one of the two.')),
  ...wants.flatMap((w) => {
    const target = wantTarget(w);
    const { device, name } = splitRef(target);
    const box = partOf(rig, device)!;
    if ('stage' in w) {
      return box.chains.some((c) => blockIds(c.slots).includes(name)) ? []
        : [wrong(part, where, `${box.name} has no stage "${name}".`, `It has ${box.chains.flatMap((c) => blockIds(c.slots)).join(', ') || 'none'}.`)];
    }
    if ('pedal' in w) return wrongPedal(rig, part, where, w);
    const value = 'is' in w ? w.is : undefined;
    if (value !== undefined) return wrongValue(rig, part, where, target, value);
    return box.controls.some((c) => c.id === name) ? [] : [wrong(part, where, `${box.name} has no control "${name}".`, `It has ${box.controls.map((c) => c.id).join(', ') || 'none'}.`)];
  }),
];

const wrongSwitches = (rig: Rig, { id, at }: Move): readonly Refusal[] => at.flatMap(({ device, switch: name }, i) => {
  const box = partOf(rig, device)!;
  const assignable = box.memories.flatMap((m) => (m.assignable ?? []).map((a) => a.switch));
  return assignable.includes(name) ? [] : [wrong(id, `at[${i}]`, `${box.name} has no switch "${name}" that a move can be put on.`, `It has ${assignable.join(', ') || 'none'}.`)];
});

const wrongPedal = (rig: Rig, part: AnyId, where: string, w: Extract<Want, { pedal: Ref }>): readonly Refusal[] => {
  const { device, name } = splitRef(w.pedal);
  const box = partOf(rig, device)!;
  const ends = [w.heel, w.toe, ...(w.at === undefined ? [] : [w.at])].flatMap((value) => wrongValue(rig, part, where, w.control, value));
  if (ends.length) return ends;
  return box.jacks.some((j) => j.id === name && j.kind === 'expression') ? []
    : [wrong(part, where, `${box.name} has no expression input "${name}".`, `It has ${box.jacks.filter((j) => j.kind === 'expression').map((j) => j.id).join(', ') || 'none'}.`)];
};

/** Whether one gets back to where one was by going from sound to sound. */
const leadsBack = (rig: Rig, from: Sound, next: (sound: Sound) => Id<'sound'> | undefined): boolean => {
  const seen = new Set<string>([from.id]);
  for (let at = next(from); at; ) {
    if (seen.has(at)) return true;
    seen.add(at);
    const sound: Sound | undefined = partOf(rig, at);
    at = sound && next(sound);
  }
  return false;
};

const wrongInSound = (rig: Rig, part: Extract<Part, { kind: 'sound' }>): readonly Refusal[] => {
  const found: Refusal[] = [...wrongWants(rig, part.id, 'wants', part.wants)];
  if (leadsBack(rig, part, (s) => s.parent)) found.push(wrong(part.id, 'parent', `"${part.name}" would be derived from itself.`, 'Choose another parent, or none.'));
  if (leadsBack(rig, part, (s) => s.level?.than)) found.push(wrong(part.id, 'level', `"${part.name}" would be as loud as itself.`, 'Measure it against another sound, or none.'));
  for (const stage of part.order ?? []) {
    const { device, name } = splitRef(stage);
    if (!partOf(rig, device)!.chains.some((c) => c.slots.some((s) => s.id === name) || blockIds(c.slots).includes(name))) found.push(wrong(part.id, 'order', `${partOf(rig, device)!.name} has no stage "${name}".`, 'Name stages that are there.'));
  }
  for (const _ of duplicates(part.calls.map((c) => `${c.device} ${c.memory} ${c.slot} ${JSON.stringify(c.in ?? {})}`))) {
    found.push(wrong(part.id, 'calls', `"${part.name}" calls the same slot twice.`, 'Keep one of the two calls.'));
  }
  part.calls.forEach((call, i) => {
    const device = partOf(rig, call.device)!;
    const memory = device.memories.find((m) => m.id === call.memory);
    if (!memory) found.push(wrong(part.id, `calls[${i}]`, `${device.name} has no memory "${call.memory}".`, `Use ${device.memories.map((m) => m.id).join(', ') || 'another device'}.`));
    else if (call.slot >= memory.size) found.push(wrong(part.id, `calls[${i}].slot`, `Slot ${call.slot} is beyond the ${memory.size} of ${device.name}.`, `Use 0 to ${memory.size - 1}.`));
    for (const other of rig.parts.sound.values()) {
      const clash = other.id !== part.id && part.calls.length === 1 && other.calls.length === 1
        && other.calls.some((c) => c.device === call.device && c.memory === call.memory && c.slot === call.slot && JSON.stringify(c.in ?? {}) === JSON.stringify(call.in ?? {}));
      if (clash) found.push(wrong(part.id, `calls[${i}].slot`, `That slot holds "${other.name}" already.`, 'Choose a free slot, or swap the two in one change.'));
    }
  });
  return found;
};

/** Bad ids are refused before anything else, whatever stands there. */
export const wrongId = (id: unknown): Refusal | undefined => {
  if (typeof id === 'string' && isId(id)) return undefined;
  const said = (typeof id === 'string' ? id : JSON.stringify(id) ?? 'nothing').slice(0, 80).toWellFormed();
  return { code: 'id', part: said, wrong: `"${said}" is not an id of a part.`, would: 'Ids read kind:name, with a–z, 0–9 and hyphens.' };
};
