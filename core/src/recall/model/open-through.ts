import { hasBanks, relaysOf, type Device } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { type Program } from '../../rig/program.js';
import { all, thePart, type Rig } from '../../rig/rig.js';
import type { When } from '../../rig/value.js';
import { actsIn } from './named-by.js';
import { theMemory, memoryIn } from '../../rig/box.js';

/** What guards a control whose value may be not known leaves open in its turn. */
export const openThrough = (rig: Rig, unknown: ReadonlySet<Ref>): ReadonlySet<Ref> => {
  const open = new Set(unknown);
  const rules = [
    ...all(rig, 'device').flatMap(rulesOf),
    ...all(rig, 'program').flatMap((p) => rulesInProgram(p, theMemory(thePart(rig, p.device), p.memory).control)),
  ];
  for (let before = -1; before !== open.size;) {
    before = open.size;
    for (const { reads, writes, sends } of rules) {
      if (!reads.some((r) => open.has(r))) continue;
      for (const r of writes) open.add(r);
      if (sends) for (const rule of rules) if (rule.isTold) for (const r of rule.writes) open.add(r);
    }
  }
  return open;
};

/** Stands for the bank that is selected at a box. */
export const BANK = '#bank';

/** A list asks the controls of its own box. */
const rulesInProgram = once((program: Program, loaded: string): readonly Rule[] => {
  const reads = actsIn(program).flatMap((act) =>
    (act.when ?? []).flatMap((f) => ('control' in f ? [ref(program.device, f.control)] : [])),
  );
  const isAsked = reads.length > 0 || actsIn(program).some((act) => 'control' in act);
  return isAsked
    ? [
        {
          reads: [...reads, ref(program.device, loaded)],
          writes: actsIn(program).flatMap((act) => ('control' in act ? [ref(program.device, act.control)] : [])),
          sends: true,
          isTold: false,
        },
      ]
    : [];
});

interface Rule {
  readonly reads: readonly Ref[];
  readonly writes: readonly Ref[];
  /** It tells other boxes something. */
  readonly sends: boolean;
  /** Other boxes can set it off. */
  readonly isTold: boolean;
}

/** What each actuator and relay of a box reads and writes. */
const rulesOf = once((device: Device): readonly Rule[] => {
  const here = (control: string) => ref(device.id, control);
  const read = (when: When | undefined): readonly Ref[] =>
    (when ?? []).flatMap((f) => ('control' in f ? [here(f.control)] : []));
  const relays = relaysOf(device)
    .filter((r) => r.closedWhen)
    .map(({ closedWhen }): Rule => ({ reads: read(closedWhen), writes: [], sends: true, isTold: false }));
  const loads = device.memories.map((m): Rule => {
    const outer = memoryIn(device, m.inside);
    return {
      reads: [
        ...(m.again === 'nothing' ? [here(m.control)] : []),
        ...(outer ? [here(outer.control)] : []),
        ...((m.assignable ?? []).length ? [here(m.control)] : []),
      ],
      writes: [m.control, ...m.stores, ...(m.assignable ?? []).map((x) => x.latch)].map(here),
      sends: true,
      isTold: true,
    };
  });
  const selects: readonly Rule[] = hasBanks(device)
    ? [
        {
          reads: typeof device.midi?.channel === 'string' ? [here(device.midi.channel)] : [],
          writes: [here(BANK)],
          sends: false,
          isTold: true,
        },
      ]
    : [];
  return [
    ...relays,
    ...loads,
    ...selects,
    ...device.actuators.map((a): Rule => {
      const isTold = 'midi' in a.by || 'contact' in a.by;
      const channel = isTold && typeof device.midi?.channel === 'string' ? [here(device.midi.channel)] : [];
      const banks = [
        ...a.acts.flatMap((act) => ('load' in act && typeof act.slot === 'object' ? [here(act.slot.bank)] : [])),
        ...('midi' in a.by && a.by.midi === 'pc' && hasBanks(device) ? [here(BANK)] : []),
      ];
      return {
        reads: [...read(a.when), ...a.acts.flatMap((act) => read(act.when)), ...channel, ...banks],
        writes: a.acts.flatMap((act): readonly Ref[] => {
          if ('control' in act) return [here(act.control)];
          const loads = 'load' in act ? memoryIn(device, act.load) : undefined;
          return loads ? [loads.control, ...loads.stores].map(here) : [];
        }),
        sends: a.acts.some((act) => 'send' in act || 'pulse' in act || 'load' in act || 'follow' in act),
        isTold,
      };
    }),
  ];
});

/**
 * Settings, and what is in the player's hands, that something else than a hand can move and something asks about; the
 * bank that a controller shows is not among them: each of its slots is called by itself.
 */
export const movedSettings = (rig: Rig, assumed: readonly Ref[]): ReadonlySet<Ref> => {
  const moved = new Set(
    all(rig, 'device').flatMap((device) => {
      const shown = new Set(
        device.actuators.flatMap((a) =>
          a.acts.flatMap((act) => ('load' in act && typeof act.slot === 'object' ? [act.slot.bank] : [])),
        ),
      );
      const rules = rulesOf(device);
      const [read, written] = [
        new Set(rules.flatMap((r) => r.reads)),
        new Set([
          ...rules.flatMap((r) => r.writes),
          ...device.memories.flatMap((m) => m.stores.map((s) => ref(device.id, s))),
        ]),
      ];
      return device.controls
        .filter((control) => control.use !== 'sound' && !shown.has(control.id))
        .map((control) => ref(device.id, control.id))
        .filter((r) => read.has(r) && written.has(r));
    }),
  );
  for (const control of assumed) moved.delete(control);
  return moved;
};
