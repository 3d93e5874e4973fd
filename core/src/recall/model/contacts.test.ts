import { withParts } from '../../../testing/after.js';
import { Random } from '../../../testing/random.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { proveRig, walk } from '../../../testing/walk.js';
import { deriveOnce, type Derived } from '../../derive/steps/deriver.js';
import { faultsOf, goWrong } from '../../derive/play/faults.js';
import { setUpBench, takeStep } from '../../derive/play/play.js';
import type { Actuator } from '../../rig/device.js';
import { relaysOf } from '../../rig/device.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';

/** A controller calls programs of a relay box, whose stereo jack chooses channel (tip) and boost (ring) of the head. */
const called = (p: Part): Part =>
  p.kind === 'sound' ? { ...p, calls: [{ device: 'device:c', memory: 'slots', slot: p.at - 1 }] } : p;
const rigWith = (
  leads: readonly string[] = ['r.pair1>h.foot-switch'],
  change: (p: Part) => Part = (p) => p,
  more: Readonly<Record<string, string>> = {},
): Rig =>
  smallRig({
    boxes: {
      g: 'single-coil',
      c: 'midi-controller',
      r: 'midi-relays-double',
      h: 'double-switch-head',
      k: 'cab-212',
      m: 'cab-mic',
      f: 'desk',
      ...more,
    },
    leads: ['g.out>h.in', 'h.speaker>k.in', 'k.air>m.air', 'm.out>f.ch1', 'c.midi-out>r.midi-in', ...leads],
    sounds: { Clean: ['h.clean'], Push: ['h.clean', 'h.boost'], Lead: ['h.lead'], Solo: ['h.lead', 'h.boost'] },
    with: (p) => change(called(p)),
  });
const derive = (rig: Rig): Derived => deriveOnce(rig, SMALL)!;
const stands = (d: Derived, sound: string) => {
  const bench = setUpBench(d, {});
  takeStep(d, bench, { does: 'recall', sound: `sound:${sound}` });
  return [bench.value('device:h.channel'), bench.value('device:h.boost')];
};
const EACH = [
  ['clean', ['clean', 'off']],
  ['push', ['clean', 'on']],
  ['lead', ['lead', 'off']],
  ['solo', ['lead', 'on']],
] as const;

describe('two relays behind one stereo jack', () => {
  const d = derive(rigWith());
  test('are two relays, tip before ring', () =>
    expect(relaysOf(partOf(d.rig, 'device:r')!).map((r) => r.at)).toEqual([
      'pair1',
      'pair1:ring',
      'pair2',
      'pair2:ring',
    ]));
  test.each(EACH)('%s: open, tip, ring or both', (sound, wanted) => expect(stands(d, sound)).toEqual(wanted));
  test('every sound is proved, and the bench walks with the prover', () => {
    expect([...d.verdicts.values()].map((v) => v.is)).toEqual(['proved', 'proved', 'proved', 'proved']);
    const p = proveRig(d.rig, d.hookup);
    for (let seed = 1; seed <= 20; seed += 1)
      expect([seed, walk(p, new Random(seed), 200).contradictions]).toEqual([seed, []]);
  });
  test('the cable pulled, both contacts are open at its far end; plugged in again, both are as they were', () => {
    const bench = setUpBench(d, {});
    takeStep(d, bench, { does: 'recall', sound: 'sound:solo' });
    const pull = faultsOf(d).find((f) => f.text === 'The cable from R pair1 to H foot-switch is pulled')!.fault as {
      cable: `cable:${string}`;
    };
    goWrong(d, bench, { fault: 'pull', cable: pull.cable });
    expect([bench.value('device:h.channel'), bench.value('device:h.boost')]).toEqual(['clean', 'off']);
    goWrong(d, bench, { fault: 'plug', cable: pull.cable });
    expect([bench.value('device:h.channel'), bench.value('device:h.boost')]).toEqual(['lead', 'on']);
  });
});

describe('over a Y lead', () => {
  // The lead stands at the end of the head: tip and ring of the relay box come apart, the ring switches a second head.
  const d = derive(
    rigWith(['r.pair1>y.stereo', 'y.tip>h2.channel-switch'], (p) => p, { y: 'contact-y', h2: 'valve-head' }),
  );
  test('tip and ring go to boxes of their own, and a pulled lead opens them', () => {
    const both = derive(
      rigWith(['r.pair1>y.stereo', 'y.tip>h2.channel-switch', 'y.ring>h3.channel-switch'], (p) => p, {
        y: 'contact-y',
        h2: 'valve-head',
        h3: 'valve-head',
      }),
    );
    const bench = setUpBench(both, {});
    for (const [relay, byte, wanted] of [
      ['relay 1', 127, ['lead', 'clean']],
      ['relay 2', 127, ['lead', 'lead']],
      ['relay 1', 0, ['clean', 'lead']],
    ] as const) {
      bench.actuate('device:r', relay, byte);
      expect([relay, byte, bench.value('device:h2.channel'), bench.value('device:h3.channel')]).toEqual([
        relay,
        byte,
        ...wanted,
      ]);
    }
    goWrong(both, bench, {
      fault: 'pull',
      cable: [...both.rig.parts.cable.values()].find((c) => c.ends.includes('device:y.stereo'))!.id,
    });
    expect([bench.value('device:h2.channel'), bench.value('device:h3.channel')]).toEqual(['clean', 'clean']);
  });
  test('the ring arrives at the lead, and no further where nothing is plugged into its end', () =>
    expect(d.control.contacts.get('device:r.pair1:ring')!.map((a) => a.device)).toEqual(['device:y']));
});

describe('a ring that pulses, and one that the far jack does not have', () => {
  const pulsing = (p: Part): Part =>
    p.kind === 'device' && p.id === 'device:h'
      ? {
          ...p,
          actuators: [
            ...p.actuators.filter((a) => !a.id.startsWith('boost')),
            {
              id: 'boost turns',
              by: { contact: 'foot-switch:ring', edge: 'closing' },
              acts: [{ control: 'boost', toggle: ['off', 'on'] }],
            } satisfies Actuator,
          ],
        }
      : p;
  test('a box that only turns over at each pulse is left to a toggle', () => {
    const rig = rigWith(
      ['c2.pair>h.foot-switch'],
      (p) =>
        pulsing(
          p.kind === 'device' && p.id === 'device:c2'
            ? {
                ...p,
                jacks: [
                  ...p.jacks,
                  {
                    id: 'pair',
                    kind: 'contact',
                    connector: '6.35 TRS',
                    poles: { tip: 'out', ring: 'out' },
                    closedWhen: [{ control: 'ctl1', in: ['closed'] }],
                  },
                ],
              }
            : p.kind === 'sound'
              ? { ...p, calls: [{ device: 'device:c2', memory: 'slots', slot: p.at - 1 }] }
              : p,
        ),
      { c2: 'switcher-8' },
    );
    const d = derive(rig);
    expect(d.compilation.sounds.get('sound:push')!.toggled).toEqual(['device:h.boost']);
    expect(d.compilation.sounds.get('sound:push')!.stored[0]!.program.acts).toEqual([{ pulse: 'pair:ring' }]);
    const p = proveRig(d.rig, d.hookup);
    for (let seed = 1; seed <= 10; seed += 1)
      expect([seed, walk(p, new Random(seed), 150).contradictions]).toEqual([seed, []]);
  });
  test('a mono far jack hears the tip alone', () => {
    const d = derive(
      withParts(rigWith(['r.pair1>h.foot-switch']), {
        ...partOf(rigWith(), 'device:h')!,
        jacks: partOf(rigWith(), 'device:h')!.jacks.map((j) =>
          j.id === 'foot-switch' ? { ...j, poles: { tip: 'in' as const }, connector: '6.35 TS' as const } : j,
        ),
        actuators: partOf(rigWith(), 'device:h')!.actuators.filter((a) => !a.id.startsWith('boost')),
      }),
    );
    expect(d.control.contacts.get('device:r.pair1:ring')).toEqual([]);
    expect(stands(d, 'lead')[0]).toBe('lead');
    expect(d.compilation.sounds.get('sound:push')!.hand.map((h) => h.control)).toEqual(['device:h.boost']);
  });
});
