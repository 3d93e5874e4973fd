import { outOf } from '../../edits/wire.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { thePart, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import { onTopOf } from '../../signal/graph/state.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import { trace } from '../../signal/graph/trace.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { behind, cableAt, elseByHand, putInto } from '../ways-out.js';
import { theFirst, theOne } from '../../known/the.js';
import { controlAt } from '../../rig/box.js';

export const tunerMute: Check = {
  code: 'order.tuner-mute',
  title: 'Tuning that the audience hears',
  severities: ['doubt'],
  source: 'common practice: a tuner that mutes everything, or a tap behind a mute',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const { wiring } = compilation.bearings.anatomy;
    const sounds = [...compilation.sounds.values()].filter((c) => c.trace.reaches.length > 0);
    const strings = wiring.sources.find(
      (s) => wiring.wired.has(s.device) && ['guitar', 'bass', 'acoustic'].includes(s.end.what ?? ''),
    );
    if (!strings || sounds.length === 0) return;
    const mutes = wiring.blocks.flatMap(
      ({ device, block }) =>
        block.mutes?.flatMap((f) =>
          'in' in f ? [{ device, control: ref(device, f.control), value: theFirst(f.in) }] : [],
        ) ?? [],
    );
    const { ref: from, device: instrument } = strings;
    const first = theFirst(sounds);
    const isHeardWith = (control: Ref, value: Value): boolean =>
      trace(wiring, onTopOf(first.state, new Map([[control, value]])), { from: [from] }).reaches.some(
        (r) => r.source.ref === from && r.end.end.is !== 'tuner',
      );
    if (gatesOf(wiring, rig).some(({ control, values }) => values.some((value) => !isHeardWith(control, value))))
      return;
    const tuners = mutes.map((m) => m.device);
    yield {
      severity: 'doubt' as const,
      evidence: tuners.length ? tuners : [instrument],
      why: tuners.length
        ? `With the tuner muted ${boxName(rig, instrument)} is still heard in ${soundNames(rig, [first.sound])}: the signal leaves before the tuner, or beside it.`
        : `Nothing in this hook-up can mute ${boxName(rig, instrument)} for tuning.`,
      remedies: () =>
        elseByHand(
          tunerFirst(inputs, instrument, tuners),
          'Put a muting tuner where everything passes, or a kill switch last',
        ),
    };
  },
};

/** Whatever can shut a way: mutes, selectors, outputs of switchers, each with all that it can be. */
const gatesOf = once(
  (wiring: Wiring, rig: Rig): readonly { readonly control: Ref; readonly values: readonly Value[] }[] => {
    const controls = new Set(wiring.edges.flatMap((e) => e.needs.flatMap((n) => n.facts.map((f) => f.control))));
    return [...controls]
      .filter((c) => wiring.wired.has(splitRef(c).device))
      .flatMap((control) => {
        const domain = controlAt(rig, control)?.domain;
        return domain && 'values' in domain ? [{ control, values: domain.values }] : [];
      });
  },
);

/** Right behind the instrument everything passes: the tuner that is there, or a new one. */
const tunerFirst = (
  inputs: CheckInputs,
  instrument: Id<'device'>,
  tuners: readonly Id<'device'>[],
): readonly Remedy[] => {
  if (tuners[0]) return behind(inputs, tuners[0], instrument);
  const out = outOf(thePart(inputs.rig, instrument));
  const from = out && ref(instrument, out.id);
  const cable = from && cableAt(inputs, from);
  return cable
    ? putInto(
        inputs,
        cable,
        from,
        theOne(cable.ends, (e) => e !== from),
        'tuner',
        'Put a muting tuner first',
      )
    : [];
};
