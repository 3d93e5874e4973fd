import type { RecallSystem, SystemAct, SystemEvent } from '../src/prover/system.js';
import type { Random } from './random.js';

const anotherValue = (r: Random, system: RecallSystem, variable: string): string =>
  r.pick(system.variables.find((v) => v.id === variable)!.domain);

const changedAct = (r: Random, system: RecallSystem, act: SystemAct): SystemAct => {
  if (act.when?.length && r.chance(40)) {
    const [first, ...others] = act.when;
    return {
      ...act,
      when: r.chance(50) ? others : [{ ...first!, in: [anotherValue(r, system, first!.variable)] }, ...others],
    };
  }
  const { variable, when } = act;
  return { variable, ...(when ? { when } : {}), set: anotherValue(r, system, variable) };
};

const changedEvent = (r: Random, system: RecallSystem, event: SystemEvent): SystemEvent => {
  const acts = [...event.acts];
  const at = acts.length ? r.int(0, acts.length - 1) : -1;
  const kind = r.int(0, 3);
  if (kind === 0 && at >= 0) acts.splice(at, 1);
  else if (kind === 1 && acts.length > 1) acts.reverse();
  else if (kind === 2 && at >= 0) acts[at] = changedAct(r, system, acts[at]!);
  else {
    const variable = r.pick(system.variables).id;
    acts.splice(r.int(0, acts.length), 0, { variable, set: anotherValue(r, system, variable) });
  }
  return { ...event, acts };
};

/**
 * The system after one small change, such as an edit of a rig brings: an act more, less or otherwise, acts the other
 * way round, another want, row or power-up value.
 */
export const changedSystem = (r: Random, system: RecallSystem): RecallSystem => {
  const kind = r.int(0, 9);
  if (kind <= 5) {
    const at = r.int(0, system.events.length - 1);
    return { ...system, events: system.events.map((e, i) => (i === at ? changedEvent(r, system, e) : e)) };
  }
  if (kind <= 7) {
    const at = r.int(0, system.sounds.length - 1);
    return {
      ...system,
      sounds: system.sounds.map((s, i) =>
        i === at ? { ...s, wants: s.wants.map((w) => ({ ...w, value: anotherValue(r, system, w.variable) })) } : s,
      ),
    };
  }
  const [group] = system.together ?? [];
  if (kind === 8 && group) {
    const rows = [...group.rows.slice(1), group.variables.map((v) => anotherValue(r, system, v))];
    return {
      ...system,
      together: [{ ...group, rows }],
      variables: system.variables.map((v) =>
        group.variables.includes(v.id)
          ? { ...v, initial: [...new Set(rows.map((row) => row[group.variables.indexOf(v.id)]!))] }
          : v,
      ),
    };
  }
  const free = system.variables.filter((v) => !group?.variables.includes(v.id));
  if (free.length === 0) return system;
  const chosen = r.pick(free).id;
  return {
    ...system,
    variables: system.variables.map((v) => (v.id === chosen ? { ...v, initial: [r.pick(v.domain)] } : v)),
  };
};
