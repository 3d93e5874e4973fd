import { apply } from '../../change/apply.js';
import { editOf, patch } from '../../change/delta.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { removeDevice } from '../../edits/devices.js';
import { Random } from '../../../testing/random.js';
import { randomEdit } from '../../../testing/random-edit.js';
import { randomRig } from '../../../testing/random-rig.js';
import { differences, transitions } from '../../recall/verdict/transitions.js';
import { everyPart, type Rig } from '../../rig/rig.js';
import { deltaOf } from '../../change/delta.js';
import { deriveOnce, hookupNamed } from '../steps/deriver.js';
import { difference } from '../../change/diff.js';
import { storedView, viewOf } from './view.js';

const rig = islandRun();
const d = deriveOnce(rig, BALLROOM_ID)!;
const parts = (r: Rig) => Object.fromEntries(everyPart(r).map((p) => [p.id, p]));

describe('what the screens are told', () => {
  const view = viewOf(d);
  test('is plain data that can cross to another thread', () => expect(structuredClone(view)).toEqual(view));
  test('says of each sound its slot, verdict and footsteps in words', () => {
    expect(view.tally).toEqual({
      sounds: 16,
      proved: 14,
      'left to hands': 0,
      broken: 2,
      undecided: 0,
      'cannot sound': 0,
    });
    expect(view.sounds[5]).toMatchObject({ name: 'Waltz grit', slot: '2B', verdict: 'broken' });
    expect(view.sounds[5]!.shortest).toMatchObject({
      text: 'MOD program',
      wanted: '13',
      steps: [{ text: 'Power up' }, { text: 'Stomp Waltz grit, 2B', value: '14' }],
    });
  });
  test('lists cables as one walks along the signal, each from its output', () => {
    expect(view.cables.slice(0, 8).map((c) => `${c.from.slice(7)} ${c.to.slice(7)}`)).toEqual([
      'gsc.out wls.in',
      'wls.out sel.a',
      'sel.out tun.in',
      'tun.out vol.in',
      'vol.out swi.in',
      'swi.send1 cmp.in',
      'cmp.out swi.return1',
      'swi.send2 ofz.in',
    ]);
    expect(view.cables.slice(-15, -10).map((c) => c.kind)).toEqual(['midi', 'midi', 'midi', 'contact', 'power']);
  });
  test('says what is stored, with the bytes and what they are for', () => {
    expect(storedView(d, 'sound:04')).toEqual([
      {
        device: 'Eight-loop switcher',
        slot: '1D',
        typed: false,
        contents:
          'loop1, loop3, loop4, loop6, loop8, order loop1 loop2 loop3 loop4 loop5 loop6 loop7 loop8, ctl1 closed, trim 3',
        messages: [
          { bytes: 'C2 04', for: 'Stereo delay: program 4' },
          { bytes: 'C3 04', for: 'Stereo reverb: program 2.2' },
        ],
      },
    ]);
    expect(storedView(d, 'sound:06')[0]).toMatchObject({
      typed: true,
      messages: [{ bytes: 'C1 0D', for: 'as typed in' }, {}, {}],
    });
  });
  test('a hook-up is found by its name, whatever the case; without one the first', () =>
    expect([hookupNamed(rig, 'ballroom'), hookupNamed(rig), hookupNamed(rig, 'moon')]).toEqual([
      BALLROOM_ID,
      BALLROOM_ID,
      undefined,
    ]));
});

describe('from every sound to every other', () => {
  const board = transitions(d.compilation, d.modelled);
  const pair = (from: string, to: string) => board.find((t) => t.from === `sound:${from}` && t.to === `sound:${to}`)!;
  test('there is one entry for each ordered pair', () => expect(board).toHaveLength(16 * 15));
  test('straight after a sound with the delay on, the toggle turns it off; after one with it off, on', () => {
    expect(pair('02', '03').wrong).toEqual(['device:dly.on']);
    expect(pair('01', '03').wrong).toEqual([]);
  });
  test('a proved sound is never wrong straight after another', () => {
    for (const t of board)
      if (d.verdicts.get(t.to)!.is === 'proved') expect([t.from, t.to, t.wrong]).toEqual([t.from, t.to, []]);
  });
  test('settling is the wire time and the longest load: two program changes of 640 µs, then 120 ms', () =>
    expect(pair('01', '02').settleMs).toBeCloseTo(1.28 + 120, 6));
  test('the gap is that of a box on the path', () => {
    expect(pair('01', '05')).toMatchObject({ gapMs: 18, gapBy: 'device:mod' });
    expect(pair('01', '02').gapMs).toBe(0);
  });
  test('what changes is told control by control', () => {
    expect(differences(d.compilation, 'sound:01', 'sound:02').map((c) => [c.control, c.from, c.to])).toEqual(
      expect.arrayContaining([
        ['device:swi.loop3', 'off', 'on'],
        ['device:dly.program', '0', '4'],
      ]),
    );
    expect(differences(d.compilation, 'sound:01', 'sound:none')).toEqual([]);
  });
});

describe('the difference of two rigs', () => {
  test('applied to the first gives the second', () => {
    for (let seed = 1; seed <= 30; seed += 1) {
      const before = randomRig(seed).rig;
      const r = new Random(seed);
      let after = before;
      for (let i = 0; i < 5; i += 1) {
        const applied = apply(after, randomEdit(r, after, `e${i}`));
        if (applied.ok) after = applied.value.rig;
      }
      expect(parts(patch(before, deltaOf(before, difference(before, after))))).toEqual(parts(after));
    }
  });
  test('of a rig and itself is nothing', () => expect(difference(rig, rig)).toEqual({ put: [], remove: [] }));
  test('names what was taken away', () => {
    const applied = apply(rig, removeDevice(rig, 'device:gat'));
    const edit = applied.ok ? difference(rig, applied.value.rig) : undefined;
    expect(edit!.remove).toEqual(expect.arrayContaining(['device:gat', 'cable:b15', 'cable:b16']));
    expect(editOf(deltaOf(rig, edit!)).remove.length).toBe(edit!.remove.length);
  });
});
