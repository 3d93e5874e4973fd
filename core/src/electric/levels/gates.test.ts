import { makeDevice } from '../../catalogue/make.js';
import { smallRig } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { all, type Part } from '../../rig/rig.js';
import { alongs } from './along.js';
import { gateRooms, mixStep } from './gates.js';

/** Common practice: wet raised from 10 to 12 or 15 % is 1.6 to 3.5 dB more. */
test.each([
  [10, 12, 1.58],
  [10, 15, 3.52],
  [50, 100, 6.02],
])('a mix turned from %d to %d %% brings %f dB more of the wet', (from, to, db) =>
  expect(mixStep(from, to)).toBeCloseTo(db, 2),
);

const mixed =
  (percent: number) =>
  (part: Part): Part =>
    part.kind === 'device' && part.id === 'device:d'
      ? {
          ...part,
          controls: [
            ...part.controls.filter((c) => c.id !== 'mix'),
            { id: 'mix', domain: { min: 0, max: 100, unit: '%' }, powerUp: { at: percent }, use: 'setting' as const },
          ],
        }
      : part;
const roomsOf = (leads: readonly string[], percent = 10) => {
  const rig = smallRig({
    boxes: { g: 'single-coil', o: 'low-drive', d: 'analog-delay', n: 'gate', h: 'one-channel-amp', c: 'cab-212' },
    leads,
    sounds: { Clean: ['d.delay', 'n.gate', 'o.overdrive'] },
    settings: { 'd.mix': percent },
    with: mixed(percent),
  });
  const derived = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
  const { trace } = derived.compilation.sounds.get('sound:clean')!;
  return alongs(trace, derived.rig).flatMap((along) => gateRooms(derived.rig, trace, along));
};

test('a gate behind a delay has its threshold between the noise and the repeats', () => {
  expect(makeDevice('gate', 'device:n').chains.length).toBeGreaterThan(0);
  const [room] = roomsOf(['g.out>o.in', 'o.out>d.in', 'd.out>n.in', 'n.out>h.in', 'h.speaker>c.in']);
  const [wet] = room!.wet;
  expect(wet).toMatchObject({ stage: 'device:d.delay', percent: 10 });
  expect(wet!.dbu).toBeCloseTo(room!.sound - 20, 6);
  expect(room!.noise).toBeLessThan(wet!.dbu!);
  const [more] = roomsOf(['g.out>o.in', 'o.out>d.in', 'd.out>n.in', 'n.out>h.in', 'h.speaker>c.in'], 15);
  expect(more!.wet[0]!.dbu! - wet!.dbu!).toBeCloseTo(3.52, 2);
});

test('before the delay it has no repeats to let through', () => {
  const [room] = roomsOf(['g.out>o.in', 'o.out>n.in', 'n.out>d.in', 'd.out>h.in', 'h.speaker>c.in']);
  expect(room!.wet).toEqual([]);
});
