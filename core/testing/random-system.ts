import fc from 'fast-check';
import type { Condition, RecallSystem, SystemAct, SystemEvent } from '../src/prover/system.js';

const VALUES = ['0', '1', '2'];

const domains = (least: number, most: number) =>
  fc
    .array(fc.integer({ min: 2, max: 3 }), { minLength: least, maxLength: most })
    .map((sizes) => sizes.map((n, i) => ({ id: `v${i}`, domain: VALUES.slice(0, n) })));

/** Recall systems of every kind of act, guard and power-up, with and without rows. */
const systems = (least: number, most: number, mostOthers: number): fc.Arbitrary<RecallSystem> =>
  domains(least, most).chain((variables) => {
    const variable = fc.constantFrom(...variables);
    const condition: fc.Arbitrary<Condition> = variable.chain((v) =>
      fc.subarray(v.domain, { minLength: 1 }).map((values) => ({ variable: v.id, in: values })),
    );
    const act: fc.Arbitrary<SystemAct> = variable.chain((v) => {
      const value = fc.constantFrom(...v.domain);
      const when = fc.option(fc.array(condition, { maxLength: 2 }), { nil: undefined, freq: 2 });
      return fc
        .oneof(
          fc.record({ when, set: value }),
          fc.record({ when, toggle: fc.tuple(value, value) }),
          fc.record({ when, step: fc.shuffledSubarray(v.domain, { minLength: 1 }) }),
        )
        .map(({ when: w, ...rest }) => ({ variable: v.id, ...(w ? { when: w } : {}), ...rest }) as SystemAct);
    });
    const acts = fc.array(act, { maxLength: 4 });
    const other: fc.Arbitrary<Omit<SystemEvent, 'id'>> = fc.record({
      acts,
      when: fc.array(condition, { maxLength: 1 }),
    });
    const wants = fc
      .subarray(variables, { minLength: 1 })
      .chain((chosen) =>
        fc.tuple(
          ...chosen.map((v) =>
            fc
              .tuple(fc.constantFrom(...v.domain), fc.option(fc.subarray(v.domain), { nil: [], freq: 2 }))
              .map(([value, or]) => ({ variable: v.id, value, ...(or.length ? { or } : {}) })),
          ),
        ),
      );
    const together = fc.option(
      fc
        .subarray(variables, { minLength: 1, maxLength: Math.min(3, variables.length) })
        .chain((chosen) =>
          fc
            .array(fc.tuple(...chosen.map((v) => fc.constantFrom(...v.domain))), { minLength: 1, maxLength: 3 })
            .map((rows) => ({ variables: chosen.map((v) => v.id), rows })),
        ),
      { nil: undefined },
    );
    return fc
      .record({
        recalls: fc.array(fc.record({ acts, wants, last: fc.boolean() }), { minLength: 1, maxLength: 3 }),
        others: fc.array(other, { maxLength: mostOthers }),
        initial: fc.tuple(...variables.map((v) => fc.subarray(v.domain, { minLength: 1 }))),
        together,
      })
      .map(({ recalls, others, initial, together: group }): RecallSystem => ({
        variables: variables.map((v, i) => {
          const column = group?.variables.indexOf(v.id) ?? -1;
          return { ...v, initial: column < 0 ? initial[i]! : [...new Set(group!.rows.map((row) => row[column]!))] };
        }),
        events: [
          ...recalls.map((r, i) => ({
            id: `recall:${i}`,
            acts: r.acts,
            ...(r.last && i > 0 ? { last: true as const } : {}),
          })),
          ...others.map((o, i) => ({ id: `other:${i}`, ...o })),
        ],
        sounds: recalls.map((r, i) => ({ id: `s${i}`, recall: `recall:${i}`, wants: r.wants })),
        ...(group ? { together: [group] } : {}),
      }));
  });

export const randomSystem = systems(2, 5, 3);
/** Of more variables, each event touching few of them. */
export const wideSystem = systems(5, 8, 8);
