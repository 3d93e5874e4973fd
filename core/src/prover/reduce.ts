import { conesOf, placesOf, writersOf } from './cone.js';
import type { RecallSystem, SystemEvent } from './system.js';

/** An event less what it does outside. */
const eventWithin = (event: SystemEvent, inside: ReadonlySet<string>): SystemEvent => {
  const places = placesOf(event);
  const kept: number[] = [];
  for (const variable of inside) for (const place of places.get(variable) ?? NOWHERE) kept.push(place);
  return { ...event, acts: kept.sort((a, b) => a - b).map((place) => event.acts[place]!) };
};

const NOWHERE: readonly number[] = [];

/**
 * A system cut down to variables none of which rests on one outside: verdicts and lengths of what is wanted of them
 * stay as they are. Events that do nothing there are left out, but for those that stay.
 */
export const systemWithin = (
  system: RecallSystem,
  inside: ReadonlySet<string>,
  stay: (event: SystemEvent) => boolean,
): RecallSystem => ({
  ...system,
  variables: system.variables.filter((v) => inside.has(v.id)),
  events: system.events.flatMap((e) => {
    const event = eventWithin(e, inside);
    return event.acts.length || stay(e) ? [event] : [];
  }),
  sounds: system.sounds.map((s) => ({ ...s, wants: s.wants.filter((w) => inside.has(w.variable)) })),
  together: (system.together ?? []).flatMap((g) => {
    const columns = g.variables.flatMap((v, i) => (inside.has(v) ? [i] : []));
    const rows = [
      ...new Map(g.rows.map((row) => columns.map((i) => row[i]!)).map((row) => [row.join('\u0001'), row])).values(),
    ];
    return columns.length ? [{ variables: columns.map((i) => g.variables[i]!), rows }] : [];
  }),
});

/** Everything that some variables rest on, themselves among it. */
const restOn = (system: RecallSystem, variables: Iterable<string>): ReadonlySet<string> =>
  new Set([...conesOf(system, writersOf(system), variables).values()].flat());

/** A system cut down to the cones of one sound's wants (or of one of them). */
export const coneSystem = (system: RecallSystem, sound: string, variable?: string): RecallSystem => {
  const judged = system.sounds.find((s) => s.id === sound)!;
  const wants = judged.wants.filter((w) => variable === undefined || w.variable === variable);
  const cut = systemWithin(
    system,
    restOn(
      system,
      wants.map((w) => w.variable),
    ),
    (e) => e.id === judged.recall,
  );
  return { ...cut, id: `${system.id ?? 'system'} ${sound}`, sounds: [{ ...judged, wants }] };
};
