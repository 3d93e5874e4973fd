import { distinct, groupsIn, rowsInCone, type Cut } from './cut.js';
import { EventClasses, type NumberedGuard, type Op } from './event-classes.js';
import type { Merging } from './merging.js';
import { Paths, START } from './paths.js';
import { afterAct, type Condition, type RecallSystem, type SystemAct } from './system.js';
import { conditionNumber, numberOf } from './texts.js';

/** Guards and ops of the same form say the same. */
interface WithForm {
  readonly form: number;
}

/** A recall system cut down to a cone, in small integers; values that the cone cannot tell apart are merged. */
export interface Projection {
  readonly sizes: readonly number[];
  /** Events that do the same within the cone are one class. */
  readonly classes: EventClasses;
  /** Of each class whether it is judged what it leaves. */
  readonly asked: readonly boolean[];
  /** It is judged, too, what is there without any event. */
  readonly isLeftBySome: boolean;
  /** The class of each member; members that come to the same once values are merged share one. */
  readonly classOf: readonly number[];
  /** Places of the variables whose value is judged. */
  readonly judged: readonly number[];
  /** A name for each merged value. */
  readonly names: readonly (readonly string[])[];
  /** The merged value of each value. */
  readonly merged: readonly ReadonlyMap<string, number>[];
  readonly initial: readonly (readonly number[])[];
  readonly rows: readonly { readonly at: readonly number[]; readonly rows: readonly (readonly number[])[] }[];
}

export const project = (
  system: RecallSystem,
  { cone, members, signs, places, isLeftBySome }: Cut,
  merging: Merging,
  // eslint-disable-next-line max-lines-per-function -- one pass over a cone: each step reads what the one before has merged
): Projection => {
  const place = new Map(cone.map((id, i) => [id, i]));
  const turns = cone.map((): SystemAct[] => []);
  const conditionsOn = cone.map(() => new Map<number, Condition>());
  const reads = (when: readonly Condition[] | undefined) => {
    if (when) for (const c of when) conditionsOn[place.get(c.variable)!]!.set(conditionNumber(c), c);
  };
  /** What is done in the cone, each act once, and which of them each sign is. */
  const done: SystemAct[] = [];
  if (actOf.length < signs.length) actOf = new Int32Array(2 * signs.length);
  paths.clear();
  for (const { event, from, to } of members) {
    reads(event.when);
    for (let k = from; k < to; k += 1) {
      const at = paths.goOn(START, signs[k]!);
      let number = paths.endAt(at);
      if (number < 0) {
        const act = event.acts[places[k]!]!;
        number = paths.endWith(at, done.push(act) - 1);
        if (!('set' in act)) turns[place.get(act.variable)!]!.push(act);
        reads(act.when);
      }
      actOf[k] = number;
    }
  }
  const merged = cone.map((id, i) => merging.of(id, turns[i]!, [...conditionsOn[i]!.values()]));
  forms.clear();
  paths.clear();
  const classes = new EventClasses();
  const guards = new Map<number, NumberedGuard & WithForm>();
  const guardOf = (c: Condition): NumberedGuard & WithForm => {
    const known = guards.get(conditionNumber(c));
    if (known) return known;
    const at = place.get(c.variable)!;
    const { values, number } = merged[at]!.allowedBy(c);
    const guard = { at, table: classes.table(values), form: forms.goOn(forms.goOn(START, at), number) };
    guards.set(conditionNumber(c), guard);
    return guard;
  };
  const ops = done.map((act): Op & WithForm => {
    const at = place.get(act.variable)!;
    const { names, of } = merged[at]!;
    const becomes = 'set' in act ? ALL_ALIKE : names.map((name) => of.get(afterAct(act, name))!);
    const to = 'set' in act ? of.get(act.set)! : becomes.every((v) => v === becomes[0]) ? becomes[0]! : -1;
    const under = act.when?.map(guardOf) ?? [];
    let form = forms.goOn(START, ACT);
    for (const guard of under) form = forms.goOn(form, guard.form);
    form = forms.goOn(forms.goOn(forms.goOn(form, ACT), at), to < 0 ? -numberOf(becomes.join()) : to);
    return { at, guards: under, to, table: to < 0 ? classes.table(becomes) : -1, form };
  });
  const grouped = groupsIn(system, cone).map((g) => rowsInCone(g, place));
  const inGroup = new Set(grouped.flatMap((g) => g.at));
  const asked: boolean[] = [];
  const classOf = members.map(({ event, from, to, isAsked }): number => {
    let at = paths.goOn(START, event.last ? LAST : ACT);
    if (event.when) for (const c of event.when) at = paths.goOn(at, guardOf(c).form);
    at = paths.goOn(at, ACT);
    for (let k = from; k < to; k += 1) at = paths.goOn(at, ops[actOf[k]!]!.form);
    let made = paths.endAt(at);
    if (made < 0) {
      const does: Op[] = [];
      for (let k = from; k < to; k += 1) does.push(ops[actOf[k]!]!);
      made = paths.endWith(at, classes.add(event.when?.map(guardOf) ?? NO_GUARDS, does, event.last === true));
      asked.push(false);
    }
    if (isAsked) asked[made] = true;
    return made;
  });
  return {
    classes,
    classOf,
    asked,
    isLeftBySome,
    judged: cone.flatMap((id, i) => (merging.wanted.has(id) ? [i] : [])),
    sizes: merged.map((m) => m.names.length),
    names: merged.map((m) => m.names),
    merged: merged.map((m) => m.of),
    initial: cone.map((id, i) =>
      inGroup.has(i) ? [] : [...new Set(merging.variable(id).initial.map((v) => merged[i]!.of.get(v)!))],
    ),
    rows: grouped.map(({ at, rows }) => ({
      at,
      rows: distinct(rows.map((row) => row.map((v, k) => merged[at[k]!]!.of.get(v)!))),
    })),
  };
};

const [forms, paths] = [new Paths(), new Paths()];
const ALL_ALIKE: readonly number[] = [];
const NO_GUARDS: readonly NumberedGuard[] = [];
/** Room for the number of one act after the other. */
let actOf = new Int32Array(1024);
/** No place in a cone and no form has these numbers. */
const [ACT, LAST] = [-1, -2];
