import { once } from '../../kept/kept.js';
import { conesOf, writersOf } from '../../prover/cone.js';
import type { Condition, RecallSystem, SystemAct, SystemEvent, SystemSound } from '../../prover/system.js';
import { systemWithin } from '../../prover/reduce.js';
import { theEntry } from '../../known/the.js';

/** Which wanted variables rest on others, asked the other way round: what a change of some variables can reach. */
export class Influence {
  readonly cones: ReadonlyMap<string, readonly string[]>;
  private readonly above = new Map<string, string[]>();
  private readonly known = new Map<string, ReadonlySet<string>>();

  constructor(system: RecallSystem, wanted: Iterable<string>) {
    this.cones = conesOf(system, writersOf(system), wanted);
    for (const [variable, cone] of this.cones) {
      for (const under of cone) {
        const above = this.above.get(under);
        if (above) above.push(variable);
        else this.above.set(under, [variable]);
      }
    }
  }

  /** Wanted variables that rest on one of these. */
  from(variables: Iterable<string>): ReadonlySet<string> {
    const under = [...new Set(variables)].sort();
    const key = under.join(' ');
    const reached = this.known.get(key) ?? new Set(under.flatMap((v) => this.above.get(v) ?? []));
    this.known.set(key, reached);
    return reached;
  }
}

/** Something more that can happen, with the wanted variables that it matters to. */
export interface Extra {
  readonly id: string;
  readonly matters: ReadonlySet<string>;
  /** It can only happen while these hold. */
  readonly when?: readonly Condition[] | undefined;
  /** It is judged and leads nowhere. */
  readonly last?: true;
  /** Its acts on these variables. */
  readonly acts: (inside: ReadonlySet<string>) => readonly SystemAct[];
}

/** Lists of acts cut down to what they do inside; each list once for each inside. */
export class Cutter {
  private readonly known = new WeakMap<ReadonlySet<string>, Map<readonly SystemAct[], readonly SystemAct[]>>();

  cut(acts: readonly SystemAct[], inside: ReadonlySet<string>): readonly SystemAct[] {
    let known = this.known.get(inside);
    if (!known) this.known.set(inside, (known = new Map()));
    let left = known.get(acts);
    if (!left) known.set(acts, (left = acts.filter((act) => inside.has(act.variable))));
    return left;
  }
}

/**
 * A system with more that can happen, as several that share nothing that is judged: each is cut down to the cones of
 * its variables, and each extra event is told
 * whole in the one to which it matters. What no extra event can change is left out.
 */
export const apart = (
  system: RecallSystem,
  extras: readonly Extra[],
  sounds: readonly SystemSound[],
  { cones }: Influence,
): readonly RecallSystem[] => {
  const heads = new Map<string, string>();
  const headOf = (variable: string): string => {
    const head = heads.get(variable);
    return head === undefined || head === variable ? variable : headOf(head);
  };
  for (const { matters } of new Map(extras.map((e) => [e.matters, e])).values()) {
    const [first, ...others] = matters;
    if (first === undefined) continue;
    heads.set(first, headOf(first));
    for (const other of others) heads.set(headOf(other), headOf(first));
  }
  const recalls = new Set(sounds.map((s) => s.recall));
  const groups = new Map<
    string,
    { readonly judged: Set<string>; readonly inside: Set<string>; readonly extras: Map<string, Extra> }
  >();
  for (const variable of heads.keys()) {
    const head = headOf(variable);
    const group = groups.get(head) ?? { judged: new Set(), inside: new Set(), extras: new Map() };
    groups.set(head, group);
    group.judged.add(variable);
    theEntry(cones, variable).forEach((v) => group.inside.add(v));
  }
  for (const extra of extras) {
    const [first] = extra.matters;
    if (first !== undefined) theEntry(groups, headOf(first)).extras.set(extra.id, extra);
  }
  return [...groups.values()].map(({ judged, inside, extras: own }) => {
    const events = [...own.values()].map(({ id, acts, last, when }): SystemEvent => ({
      id,
      ...(when ? { when } : {}),
      acts: acts(inside),
      ...(last ? { last } : {}),
    }));
    const cut = systemWithin({ ...system, sounds: [] }, inside, (e) => recalls.has(e.id));
    const happens = new Set([...cut.events, ...events].map((e) => e.id));
    return {
      ...cut,
      events: [...cut.events, ...events],
      sounds: sounds
        .filter((s) => happens.has(s.recall))
        .flatMap((s) => {
          const wants = s.wants.filter((w) => judged.has(w.variable));
          return wants.length ? [{ ...s, wants }] : [];
        }),
    };
  });
};

/** Every variable that some sound wants. */
export const wantedIn = once((sounds: readonly SystemSound[]): ReadonlySet<string> => {
  const wanted = new Set<string>();
  for (const { wants } of sounds) for (const { variable } of wants) wanted.add(variable);
  return wanted;
});
