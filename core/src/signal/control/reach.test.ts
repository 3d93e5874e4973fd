import fc from 'fast-check';
import { makeDevice } from '../../catalogue/make.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import type { Ref } from '../../rig/ids.js';
import { rigOf } from '../../rig/rig.js';
import { FINISH, neighbours, readArrangement, START } from '../graph/arrangement.js';
import { controlWiring } from './reach.js';

const hookup: Hookup = { kind: 'hookup', id: 'hookup:h', name: 'h', settings: {}, hears: [], assumes: [] };
const wiring = (boxes: Readonly<Record<string, string>>, leads: readonly (readonly [string, string])[]) =>
  controlWiring(
    rigOf([
      ...Object.entries(boxes).map(([id, key]) => makeDevice(key, `device:${id}`)),
      hookup,
      ...leads.map(([a, b], i): Cable => ({
        kind: 'cable',
        id: `cable:${i}`,
        hookup: hookup.id,
        ends: [`device:${a}` as Ref, `device:${b}` as Ref],
      })),
    ]),
    hookup,
  );

describe('who hears whom', () => {
  test('along a chain of thrus, nearest first, with the number of hops', () => {
    const w = wiring({ c: 'midi-controller', a: 'stereo-delay', b: 'stereo-reverb', d: 'stereo-modulation' }, [
      ['c.midi-out', 'a.midi-in'],
      ['a.midi-thru', 'b.midi-in'],
      ['b.midi-thru', 'd.midi-in'],
    ]);
    expect(w.midi.get('device:c.midi-out')!.map((x) => `${x.device} ${x.hops}`)).toEqual([
      'device:a 1',
      'device:b 2',
      'device:d 3',
    ]);
  });
  test('a controller that merges passes on what comes in', () => {
    const w = wiring({ c: 'midi-controller', s: 'switcher-8', a: 'stereo-delay' }, [
      ['c.midi-out', 's.midi-in'],
      ['s.midi-out', 'a.midi-in'],
    ]);
    expect(w.midi.get('device:c.midi-out')!.map((x) => x.device)).toEqual(['device:s', 'device:a']);
    expect(w.midi.get('device:s.midi-out')!.map((x) => x.device)).toEqual(['device:a']);
  });
  test('a cable the wrong way round carries nothing', () =>
    expect(
      wiring({ c: 'midi-controller', a: 'stereo-delay' }, [['c.midi-in', 'a.midi-in']]).midi.get('device:c.midi-out'),
    ).toEqual([]));
  test('MIDI plugged in a ring is walked once', () => {
    const w = wiring({ c: 'midi-controller', a: 'stereo-delay' }, [
      ['c.midi-out', 'a.midi-in'],
      ['a.midi-thru', 'c.midi-in'],
    ]);
    expect(
      w.midi
        .get('device:c.midi-out')!
        .map((x) => x.device)
        .sort(),
    ).toEqual(['device:a', 'device:c']);
  });
  test('a relay reaches the contact input at the other end of its cable', () => {
    const w = wiring({ s: 'switcher-8', h: 'valve-head' }, [['s.ctl2', 'h.channel-switch']]);
    expect(w.contacts.get('device:s.ctl2')).toEqual([{ device: 'device:h', jack: 'channel-switch', hops: 1 }]);
    expect(w.contacts.get('device:s.ctl1')).toEqual([]);
  });
});

describe('arrangements', () => {
  test.each([
    ['a b c', ['^>a', 'a>b', 'b>c', 'c>$']],
    ['a ( b | c ) d', ['^>a', 'a>b', 'a>c', 'b>d', 'c>d', 'd>$']],
    ['( a | b c )', ['^>a', '^>b', 'a>$', 'b>c', 'c>$']],
    ['', ['^>$']],
    ['a(b|(c|d)e)f', ['^>a', 'a>b', 'a>c', 'a>d', 'b>f', 'c>e', 'd>e', 'e>f', 'f>$']],
  ])('%s', (text, pairs) => expect([...neighbours(text)].sort()).toEqual([...pairs].sort()));
  test('in a series every slot has one before and one behind it', () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.stringMatching(/^[a-z]{1,4}$/), { minLength: 1, maxLength: 10 }), (slots) => {
        const pairs = [...neighbours(slots.join(' '))].map((p) => p.split('>') as [string, string]);
        expect(pairs.map(([a]) => a).sort()).toEqual([START, ...slots].sort());
        expect(pairs.map(([, b]) => b).sort()).toEqual([...slots, FINISH].sort());
      }),
    ));
  test('brackets that do not close are read as far as they go', () =>
    expect(readArrangement('a ( b | c')).toEqual(['a', { arms: [['b'], ['c']] }]));
});
