import { conesOf, writersOf } from './cone.js';
import type { RecallSystem } from './system.js';

/** A system cut down to the cones of one sound's wants (or of one of them): verdict and lengths stay as they are. */
export const coneSystem = (system: RecallSystem, sound: string, variable?: string): RecallSystem => {
  const judged = system.sounds.find((s) => s.id === sound)!;
  const wants = judged.wants.filter((w) => variable === undefined || w.variable === variable);
  const cones = conesOf(system, writersOf(system), wants.map((w) => w.variable));
  const inside = new Set([...cones.values()].flat());
  const events = system.events.flatMap((e) => {
    const acts = e.acts.filter((a) => inside.has(a.variable));
    return acts.length || e.id === judged.recall ? [{ ...e, acts }] : [];
  });
  return {
    id: `${system.id ?? 'system'} ${sound}`,
    variables: system.variables.filter((v) => inside.has(v.id)),
    events,
    sounds: [{ ...judged, wants }],
    together: (system.together ?? []).flatMap((g) => {
      const columns = g.variables.flatMap((v, i) => (inside.has(v) ? [i] : []));
      const rows = [...new Map(g.rows.map((row) => columns.map((i) => row[i]!)).map((row) => [row.join('\u0001'), row])).values()];
      return columns.length ? [{ variables: columns.map((i) => g.variables[i]!), rows }] : [];
    }),
  };
};
