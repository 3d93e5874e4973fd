import type { Act } from '../../rig/act.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref } from '../../rig/ids.js';
import { type Assign, type Program } from '../../rig/program.js';
import { keptIn, once } from '../../kept/kept.js';
import { all } from '../../rig/rig.js';
import { type Bearings } from '../actuate/bearings.js';
import { type Domains } from './domains.js';
import type { Effects } from './effects.js';
import { type ModelMemory } from './model-memory.js';
import { type Shelf } from './shelf.js';
import type { Condition, SystemAct } from '../../prover/system.js';
import { numberOf } from '../../prover/texts.js';
import { type Happening, type Footstep } from './happenings.js';

/** What the programs of a memory assign to one of its switches. */
export const assignedTo = (
  domains: Domains,
  shelf: Shelf,
  device: Device,
  memory: Memory,
  name: string,
): readonly Assigned[] =>
  keptIn(assigning, shelf, () => [...shelf.values()].filter((p) => p.assigns.length > 0)).flatMap((program) => {
    const assign =
      program.device === device.id && program.memory === memory.id
        ? program.assigns.find((a) => a.switch === name)
        : undefined;
    return assign ? [{ assign, program: domains.named(ref(device.id, memory.control), program.number) }] : [];
  });

const assigning = new WeakMap<Shelf, readonly Program[]>();

/** Switches that programs assign: press and release follow what the loaded program says about them. */
export const moveEvents = (
  b: Bearings,
  domains: Domains,
  effects: Effects,
  shelf: Shelf,
  kept: ModelMemory,
): readonly Happening[] =>
  all(b.rig, 'device').flatMap((device) =>
    device.memories.flatMap((memory) =>
      (memory.assignable ?? []).flatMap((place) => {
        const assigned = assignedTo(domains, shelf, device, memory, place.switch);
        const text = assigned.map(({ assign, program }) => `${program}=${assignNumber(assign)}`).join();
        return assigned.length === 0
          ? []
          : kept.keep(`${device.id}.${memory.id}.${place.switch} ${text}`, () =>
              switchEvents(device, memory, place, assigned, effects),
            );
      }),
    ),
  );

/** Of the same number: they say the same. */
const assignNumber = once((assign: Assign): number => numberOf(JSON.stringify(assign)));

const actText = once((act: Act): string => JSON.stringify(act));

/** What one switch does, program by program. */
export const switchEvents = (
  device: Device,
  memory: Memory,
  place: NonNullable<Memory['assignable']>[number],
  assigned: readonly Assigned[],
  effects: Effects,
): readonly Happening[] => {
  const loaded = ref(device.id, memory.control);
  const latch = ref(device.id, place.latch);
  const held = ref(device.id, place.held);
  const when = (programs: readonly string[], ...more: readonly Condition[]): readonly Condition[] => [
    { variable: loaded, in: programs },
    ...more,
  ];
  const follow = (list: 'on' | 'off', latches: boolean, ...more: readonly Condition[]): readonly SystemAct[] => {
    const those = assigned.filter(({ assign }) => assign.latch === latches);
    if (those.every(({ assign }) => effects.isSaidAtOnce(device, assign[list])))
      return actsAlike(those, list).flatMap(({ act, programs }) =>
        effects.acts(device, [act], when(programs, ...more)),
      );
    return listsAlike(those, list).flatMap(({ acts, programs }) =>
      effects.follow(device, acts, when(programs, ...more)),
    );
  };
  const latching = assigned.filter(({ assign }) => assign.latch).map(({ program }) => program);
  const onlyLatches = latching.length === assigned.length;
  const press: SystemAct[] = [
    ...(onlyLatches ? [] : [{ variable: held, set: 'on' }]),
    ...(latching.length ? [{ variable: latch, when: when(latching), toggle: ['off', 'on'] as const }] : []),
    ...follow('on', true, { variable: latch, in: ['on'] }),
    ...follow('off', true, { variable: latch, in: ['off'] }),
    ...follow('on', false),
  ];
  const release: SystemAct[] = [...follow('off', false)];
  release.push({ variable: held, set: 'off' });
  const step = (does: 'press' | 'release' | 'stomp'): Footstep => ({ does, device: device.id, switch: place.switch });
  if (onlyLatches) return [[{ id: `stomp:${device.id}.${place.switch}`, acts: press }, step('stomp')] as const];
  return [
    [{ id: `press:${device.id}.${place.switch}`, when: [{ variable: held, in: ['off'] }], acts: press }, step('press')],
    [
      { id: `release:${device.id}.${place.switch}`, when: [{ variable: held, in: ['on'] }], acts: release },
      step('release'),
    ],
  ] as const;
};

export interface Assigned {
  readonly assign: Assign;
  readonly program: string;
}

/**
 * The acts of one list, place by place; programs that say the same act at the same place share it. Each program keeps
 * its order.
 */
const actsAlike = (
  assigned: readonly Assigned[],
  list: 'on' | 'off',
): readonly { readonly act: Act; readonly programs: readonly string[] }[] => {
  const longest = Math.max(0, ...assigned.map(({ assign }) => assign[list].length));
  return Array.from({ length: longest }, (_, place) => {
    const alike = new Map<string, { act: Act; programs: string[] }>();
    for (const { assign, program } of assigned) {
      const act = assign[list][place];
      if (!act) continue;
      const key = actText(act);
      const entry = alike.get(key);
      if (entry) entry.programs.push(program);
      else alike.set(key, { act, programs: [program] });
    }
    return [...alike.values()];
  }).flat();
};

/** Whole lists, those together that say the same. */
const listsAlike = (
  assigned: readonly Assigned[],
  list: 'on' | 'off',
): readonly { readonly acts: readonly Act[]; readonly programs: readonly string[] }[] => {
  const alike = new Map<string, { readonly acts: readonly Act[]; readonly programs: string[] }>();
  for (const { assign, program } of assigned)
    if (assign[list].length)
      keptIn(alike, assign[list].map(actText).join(), () => ({ acts: assign[list], programs: [] })).programs.push(
        program,
      );
  return [...alike.values()];
};
