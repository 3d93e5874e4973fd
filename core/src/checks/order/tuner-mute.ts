import { ref, type Ref } from '../../rig/ids.js';
import { inDomain } from '../../rig/invariants.js';
import type { Value } from '../../rig/value.js';
import { trace } from '../../signal/trace.js';
import type { Check, CheckInputs } from '../check.js';
import { soundNames } from '../names.js';

export const tunerMute: Check = {
  code: 'order.tuner-mute',
  title: 'Tuning that the audience hears',
  severities: ['doubt'],
  source: 'common practice: a tuner that mutes everything, or a tap behind a mute',
  *find({ rig, compilation }: CheckInputs) {
    const { wiring } = compilation.bearings.anatomy;
    const sounds = [...compilation.sounds.values()].filter((c) => c.trace.reaches.length > 0);
    const strings = wiring.sources.find((s) => wiring.wired.has(s.device) && ['guitar', 'bass', 'acoustic'].includes(s.end.what ?? ''));
    if (!strings || sounds.length === 0) return;
    const mutes = wiring.blocks.flatMap(({ device, block }) => block.mutes?.flatMap((f) => ('in' in f ? [{ device, control: ref(device, f.control), value: f.in[0]! }] : [])) ?? []);
    const { ref: from, device: instrument } = strings;
    const first = sounds[0]!;
    const isHeardWith = (control: Ref, value: Value): boolean =>
      trace(wiring, new Map(first.state).set(control, value), { from: [from] }).reaches.some((r) => r.source.ref === from && r.end.end.is !== 'tuner');
    const switches = [...mutes, ...[...rig.parts.device.values()].flatMap((d) => d.controls.flatMap((k) => (/mute/.test(k.id) && inDomain(k, 'on') ? [{ device: d.id, control: ref(d.id, k.id), value: 'on' as Value }] : [])))];
    if (switches.some((m) => !isHeardWith(m.control, m.value))) return;
    const tuners = mutes.map((m) => m.device);
    yield {
      severity: 'doubt' as const,
      evidence: tuners.length ? tuners : [instrument],
      why: tuners.length ? `With the tuner muted ${rig.parts.device.get(instrument)!.name} is still heard in ${soundNames(rig, [first.sound])}: the signal leaves before the tuner, or beside it.`
        : `Nothing in this hook-up can mute ${rig.parts.device.get(instrument)!.name} for tuning.`,
      remedies: [{ id: 'tuner', label: 'Put a muting tuner where everything passes, or a kill switch last', promise: 'clears' as const, by: 'hand' as const }],
    };
  },
};
