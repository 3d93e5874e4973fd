import { line } from '../../testing/run-line.js';
import { after } from '../../testing/after.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { makeDevice } from '../catalogue/make.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import { cablesOf, partOf, type Rig } from '../rig/rig.js';
import { beginTrial, endTrial, keepOnTrial, onTrial, trialNeeds, trialPlaces, type Tried } from './trial.js';

let n = 0;
const newCable = () => `cable:t${(n += 1)}` as const;
const rig = smallRig({
  boxes: { g: 'single-coil', s: 'switcher-4', d: 'low-drive', x: 'boost', h: 'one-channel-amp', c: 'cab-212' },
  leads: ['g.out>s.in', 's.send1>d.in', 'd.out>s.return1', 's.out>h.in', 'h.speaker>c.in'],
  sounds: { One: ['d.overdrive'] },
});
const BORROWED: Tried = { borrowed: 'fuzz', id: 'device:lent' };
const DAY = '2026-05-01';
const leads = (r: Rig) =>
  cablesOf(r, SMALL)
    .map((c) => c.ends.map((e) => e.slice('device:'.length)).join(' > '))
    .sort();
const path = (r: Rig) => line(soundRun(deriveOnce(r, SMALL)!, 'sound:one'));
const begun = (tried: Tried, at = 0) =>
  after(rig, beginTrial(rig, SMALL, tried, trialPlaces(rig, SMALL, tried)[at]!, newCable, DAY));

test('the test loop is offered first, then other free loops, then between two boxes', () => {
  const places = trialPlaces(rig, SMALL, BORROWED);
  expect(places[0]).toMatchObject({ is: 'loop', insert: 'loop4', test: true });
  expect(places.map((p) => p.is)).toEqual(
    [...places.map((p) => p.is)].sort((a, b) => (a === b ? 0 : a === 'loop' ? -1 : 1)),
  );
});
test.each([
  ['a borrowed one', BORROWED],
  ['one of the kit', { kit: 'device:x' } as Tried],
])('%s goes in and comes off again, and the cables are what they were', (_, tried) => {
  for (const at of [0, trialPlaces(rig, SMALL, tried).length - 1]) {
    const there = begun(tried, at);
    const [box] = onTrial(there);
    expect(box!.trial!.since).toBe(DAY);
    expect(leads(there).length).toBeGreaterThan(leads(rig).length);
    const off = after(there, endTrial(there, SMALL, box!.id, newCable));
    expect(leads(off)).toEqual(leads(rig));
    expect(onTrial(off)).toEqual([]);
    expect(path(off)).toBe(path(rig));
    expect(partOf(off, box!.id) === undefined).toBe('borrowed' in tried);
  }
});
test('it stays: only the mark goes', () => {
  const there = begun(BORROWED);
  const kept = after(there, keepOnTrial(onTrial(there)[0]!));
  expect([onTrial(kept), leads(kept)]).toEqual([[], leads(there)]);
});
test('what it asks for: volts, current, polarity, level, leads', () => {
  expect(trialNeeds(makeDevice('stereo-delay', 'device:a'))).toEqual([
    '9 V, 300 mA, centre negative: one more output of the supply',
    'instrument level at its input',
    'two leads',
  ]);
  expect(trialNeeds(makeDevice('kill-switch', 'device:a'))[0]).toBe('no supply');
});
test('a box that is not on trial is left alone', () =>
  expect(endTrial(rig, SMALL, 'device:d', newCable)).toEqual({ put: [], remove: [] }));
