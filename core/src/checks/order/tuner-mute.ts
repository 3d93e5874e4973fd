import { outOf } from '../../edits/wire.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { inDomain } from '../../rig/domain.js';
import { partOf } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import { onTopOf } from '../../signal/state.js';
import { trace } from '../../signal/trace.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { soundNames } from '../names.js';
import { behind, cableAt, elseByHand, putInto } from '../ways-out.js';

export const tunerMute: Check = {
  code: 'order.tuner-mute',
  title: 'Tuning that the audience hears',
  severities: ['doubt'],
  source: 'common practice: a tuner that mutes everything, or a tap behind a mute',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const { wiring } = compilation.bearings.anatomy;
    const sounds = [...compilation.sounds.values()].filter((c) => c.trace.reaches.length > 0);
    const strings = wiring.sources.find((s) => wiring.wired.has(s.device) && ['guitar', 'bass', 'acoustic'].includes(s.end.what ?? ''));
    if (!strings || sounds.length === 0) return;
    const mutes = wiring.blocks.flatMap(({ device, block }) => block.mutes?.flatMap((f) => ('in' in f ? [{ device, control: ref(device, f.control), value: f.in[0]! }] : [])) ?? []);
    const { ref: from, device: instrument } = strings;
    const first = sounds[0]!;
    const isHeardWith = (control: Ref, value: Value): boolean =>
      trace(wiring, onTopOf(first.state, new Map([[control, value]])), { from: [from] }).reaches.some((r) => r.source.ref === from && r.end.end.is !== 'tuner');
    const switches = [...mutes, ...[...rig.parts.device.values()].flatMap((d) => d.controls.flatMap((k) => (/mute/.test(k.id) && inDomain(k, 'on') ? [{ device: d.id, control: ref(d.id, k.id), value: 'on' as Value }] : [])))];
    if (switches.some((m) => !isHeardWith(m.control, m.value))) return;
    const tuners = mutes.map((m) => m.device);
    yield {
      severity: 'doubt' as const,
      evidence: tuners.length ? tuners : [instrument],
      why: tuners.length ? `With the tuner muted ${rig.parts.device.get(instrument)!.name} is still heard in ${soundNames(rig, [first.sound])}: the signal leaves before the tuner, or beside it.`
        : `Nothing in this hook-up can mute ${rig.parts.device.get(instrument)!.name} for tuning.`,
      remedies: () => elseByHand(tunerFirst(inputs, instrument, tuners), 'Put a muting tuner where everything passes, or a kill switch last'),
    };
  },
};

/** Right behind the instrument everything passes: the tuner that is there, or a new one. */
const tunerFirst = (inputs: CheckInputs, instrument: Id<'device'>, tuners: readonly Id<'device'>[]): readonly Remedy[] => {
  if (tuners[0]) return behind(inputs, tuners[0], instrument);
  const out = outOf(partOf(inputs.rig, instrument)!);
  const from = out && ref(instrument, out.id);
  const cable = from && cableAt(inputs, from);
  return cable ? putInto(inputs, cable, from, cable.ends.find((e) => e !== from)!, 'tuner', 'Put a muting tuner first') : [];
};
