import { theEntry, theItem, theFirst } from '../known/the.js';
import {
  servedBy,
  type Condition,
  type RecallSystem,
  type SystemAct,
  type SystemEvent,
  type SystemSound,
} from './system.js';

/**
 * Numbers wants as the model's assertions do: all wants of the first sound, then each alone, then the next sound.
 * Counted from 1.
 */
export const wantNumbers = (system: RecallSystem): readonly { readonly sound: string; readonly variable?: string }[] =>
  system.sounds.flatMap((s) => [{ sound: s.id }, ...s.wants.map((w) => ({ sound: s.id, variable: w.variable }))]);

/**
 * The system as a Promela model for SPIN: a variable is a byte, power-up one `if` for each free variable or group, an
 * event one
 * d_step, so that a breadth-first trail counts events. With a sound the model asserts its wants; without one the
 * external constant
 * `want_` picks an assertion by its number, so that one compiled model serves them all.
 *
 *   spin -a model.pml; gcc -O2 -DSAFETY -DBFS -DNOREDUCE -o pan pan.c; ./pan -E     errors: 0 = proved
 */
// eslint-disable-next-line max-lines-per-function -- the model is written in one piece, in the order of the language
export const promela = (system: RecallSystem, sound?: string): string => {
  const names = new Map(system.variables.map((v, i) => [v.id, `v${i}`]));
  const domains = new Map(system.variables.map((v) => [v.id, v.domain]));
  const value = (variable: string, v: string): number => theEntry(domains, variable).indexOf(v);
  const name = (variable: string): string => theEntry(names, variable);
  const test = (variable: string, v: string): string => `${name(variable)} == ${value(variable, v)}`;
  const condition = (c: Condition): string =>
    `(${c.in.length ? c.in.map((v) => test(c.variable, v)).join(' || ') : 'false'})`;
  const all = (when: readonly Condition[] | undefined): string =>
    when?.length ? when.map(condition).join(' && ') : 'true';
  const become = (variable: string, v: string): string => `${name(variable)} = ${value(variable, v)}`;

  const change = (act: SystemAct): string => {
    const v = act.variable;
    if ('set' in act) return become(v, act.set);
    if ('toggle' in act) {
      const [a, b] = act.toggle;
      return a === b ? 'skip' : `if :: ${test(v, a)} -> ${become(v, b)} :: ${test(v, b)} -> ${become(v, a)} :: else fi`;
    }
    const { step } = act;
    const moves = step.flatMap((s, i) =>
      step.indexOf(s) === i && i < step.length - 1 ? [`:: ${test(v, s)} -> ${become(v, theItem(step, i + 1))}`] : [],
    );
    return moves.length
      ? `if ${moves.join(' ')} :: else -> ${become(v, theFirst(step))} fi`
      : become(v, theFirst(step));
  };
  const act = (a: SystemAct): string =>
    a.when?.length ? `if :: (${all(a.when)}) -> ${change(a)} :: else fi` : change(a);

  const numbers = wantNumbers(system);
  const wantsOf = (s: SystemSound): readonly string[] => {
    const each = s.wants.map((w) =>
      w.or ? condition({ variable: w.variable, in: servedBy(w) }) : test(w.variable, w.value),
    );
    const both = each.join(' && ') || 'true';
    if (sound !== undefined) return s.id === sound ? [`assert(${both});`] : [];
    const first = numbers.findIndex((n) => n.sound === s.id) + 1;
    return [
      'if',
      ...[both, ...each].map((e, i) => `:: c_expr { want_ == ${first + i} } -> assert(${e})`),
      ':: else',
      'fi;',
    ];
  };
  const event = (e: SystemEvent, i: number): readonly string[] => [
    `  :: d_step { /* ${e.id.replaceAll('*/', '')} */`,
    `       (${all(e.when)});`,
    `       printf("@E ${i}\\n");`,
    ...e.acts.map((a) => `       ${act(a)};`),
    ...system.sounds
      .filter((s) => s.recall === e.id)
      .flatMap(wantsOf)
      .map((line) => `       ${line}`),
    `     }${e.last ? '; break' : ''}`,
  ];
  const grouped = new Set((system.together ?? []).flatMap((g) => g.variables));
  const powerUp = [
    ...system.variables
      .filter((v) => !grouped.has(v.id))
      .map((v) => `  if ${v.initial.map((x) => `:: ${become(v.id, x)}`).join(' ')} fi;`),
    ...(system.together ?? []).map(
      (g) =>
        `  if ${g.rows.map((row) => `:: d_step { ${row.map((x, i) => become(theItem(g.variables, i), x)).join('; ')} }`).join(' ')} fi;`,
    ),
  ];
  return [
    `/* ${(system.description ?? system.id ?? 'A recall system').replaceAll('*/', '')}; values are numbered in the order of their domains. */`,
    ...(sound === undefined ? ['c_decl { extern int want_; }'] : []),
    ...system.variables.map((v) => `byte ${name(v.id)}; /* ${v.id}: ${v.domain.join(', ').replaceAll('*/', '')} */`),
    'active proctype rig() {',
    ...powerUp,
    '  do',
    ...system.events.flatMap(event),
    '  od',
    '}',
    '',
  ].join('\n');
};
