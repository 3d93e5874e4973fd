import { after } from '../../../testing/after.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { removeDevice } from '../../edits/devices.js';
import { hearsAt, hearsSo, setMix, wishFor } from '../../edits/mixes.js';
import type { MonitorMix } from '../../rig/hookup.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { isNamedBy, monitorEnds, monitorMixes } from './monitor-mix.js';

const NOBODY: MonitorMix = { hears: {} };
const rig = smallRig({
  boxes: { g: 'single-coil', d: 'boost', e: 'in-ears' },
  leads: ['g.out>d.in', 'd.out>e.in-l'],
  sounds: { Clean: [], Lead: ['d.boost'] },
});
const mixed = (mix: MonitorMix, of: Rig = rig): Rig => after(of, setMix(thePart(of, SMALL), 'Singer', mix));
const seen = (of: Rig) => monitorMixes(deriveOnce(of, SMALL)!);

test('what the rig itself brings to an ear is told with the boxes on its way', () => {
  expect(monitorEnds(deriveOnce(rig, SMALL)!)).toEqual([
    expect.objectContaining({
      device: 'device:e',
      brings: [expect.objectContaining({ over: ['Boost'], sounds: 2, of: 2 })],
    }),
  ]);
});

test('a wish says how it is met: by the rig, or by the house; what cannot be kept out is told', () => {
  const name = thePart(rig, 'device:g').name;
  const mix = hearsSo(hearsSo(hearsAt(NOBODY, 'device:e'), name, 'not at all'), 'Drums', 'well');
  const [singer] = seen(mixed(mix));
  expect(singer).toMatchObject({ who: 'Singer', at: { device: 'device:e' } });
  expect(singer?.lines).toEqual([
    { what: 'Drums', much: 'well', against: false, how: 'sent by the house' },
    { what: name, much: 'not at all', against: true, how: 'comes by itself over Boost, in every sound' },
  ]);
  // On somebody else's ears nothing comes by itself.
  expect(seen(mixed(hearsAt(mix, undefined)))[0]?.lines.map((l) => l.against)).toEqual([false, false]);
});

test('a source is meant by the words one uses for it; ears to which nothing leads get all from the house', () => {
  const said = hearsSo(hearsAt(NOBODY, 'device:e'), 'coil', 'well');
  expect(seen(mixed(said))[0]?.lines[0]?.how).toBe('comes by itself over Boost, in every sound');
  expect([
    isNamedBy('Single-coil guitar', 'guitar'),
    isNamedBy('Guitar', 'bass guitar'),
    isNamedBy('Guitar', ' '),
  ]).toEqual([true, false, false]);
  const apart = smallRig({ boxes: { g: 'single-coil', d: 'boost', e: 'in-ears' }, leads: ['g.out>d.in'] });
  expect(seen(mixed(said, apart))[0]).toMatchObject({
    at: { device: 'device:e', brings: [] },
    lines: [{ how: 'sent by the house' }],
  });
});

test('a mix outlives the box on which it is heard; wishes of songs stand with it; both can be taken away', () => {
  const said = mixed(hearsSo(hearsAt(NOBODY, 'device:e'), 'Drums', 'well'));
  const gone = after(said, removeDevice(said, 'device:e'));
  expect(thePart(gone, SMALL).mixes).toEqual({ Singer: { hears: { Drums: 'well' } } });
  const song = { kind: 'song', id: 'song:a', title: 'Tide', cues: [] } as const;
  const wished = after(said, wishFor(song, 'Singer', 'more of the drums in the bridge'));
  expect(seen(wished)[0]?.songs).toEqual([{ title: 'Tide', wish: 'more of the drums in the bridge' }]);
  expect(wishFor(thePart(wished, 'song:a'), 'Singer', '').put[0]).toEqual(song);
  expect(setMix(thePart(said, SMALL), 'Singer', undefined).put[0]).toEqual(thePart(rig, SMALL));
});
