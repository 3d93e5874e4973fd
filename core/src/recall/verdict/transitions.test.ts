import { after, withParts } from '../../../testing/after.js';
import { randomRig } from '../../../testing/random-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { deriveOnce, type Derived } from '../../derive/steps/deriver.js';
import { setDials } from '../../edits/dial-cards.js';
import { isUsed } from '../../derive/views/without.js';
import { readDials } from '../../dials/knob-words.js';
import type { DialCase } from '../../rig/dial-card.js';
import type { Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { differences, transitions } from './transitions.js';

const demo = islandRun();
const d = deriveOnce(demo, BALLROOM_ID)!;
const board = (of: Derived) => transitions(of.compilation, of.modelled);
const pair = (from: string, to: string, of = d) =>
  board(of).find((t) => t.from === `sound:${from}` && t.to === `sound:${to}`)!;

describe('from one sound straight to another', () => {
  test('every ordered pair once, none with itself', () => {
    const all = board(d);
    expect(all).toHaveLength(16 * 15);
    expect(new Set(all.map((t) => `${t.from} ${t.to}`)).size).toBe(240);
  });
  test('settling is the time of the bytes at 31,250 baud, then the longest load gap', () => {
    // Verse clean: program changes to the delay (2 bytes, 120 ms to load) and the reverb (2 bytes, 60 ms). MIDI 1.0:
    // 320 µs a byte.
    expect(pair('02', '01').settleMs).toBeCloseTo(4 * 0.32 + 120, 6);
  });
  test('a box that goes silent while it loads interrupts only when it is on the path before or after', () => {
    const silentDelay = withParts(demo, {
      ...partOf(demo, 'device:mod')!,
      memories: partOf(demo, 'device:mod')!.memories.map((m) => ({ ...m, mutesMs: 25 })),
    });
    const now = deriveOnce(silentDelay, BALLROOM_ID)!;
    expect(pair('01', '03', now)).toMatchObject({ gapMs: 25, gapBy: 'device:mod' });
    expect(pair('02', '01', now).gapMs).toBe(0);
  });
  test('a box that ignores the program that is loaded already has nothing to load', () => {
    const stubborn = withParts(demo, {
      ...partOf(demo, 'device:dly')!,
      memories: partOf(demo, 'device:dly')!.memories.map((m) => ({ ...m, again: 'nothing' as const })),
    });
    const now = deriveOnce(stubborn, BALLROOM_ID)!;
    const [same, other] = [pair('02', '04', now), pair('01', '04', now)];
    expect(same.settleMs).toBeLessThan(other.settleMs);
  });
  test('the toggle is wrong after a sound that leaves the delay on, right after one that leaves it out', () => {
    expect(pair('04', '03').wrong).toEqual(['device:dly.on']);
    expect(pair('01', '03').wrong).toEqual([]);
  });
  test('a typed slot with a number one off is wrong from everywhere', () => {
    for (const from of ['01', '05', '15']) expect(pair(from, '06').wrong).toContain('device:mod.program');
  });
  test('the delay behind the loops rings on where its program takes it out; a sound that keeps it has nothing to leave', () => {
    expect(pair('02', '01').tails).toEqual({ ring: ['device:dly.delay'], cut: [] });
    expect(pair('04', '03').tails).toEqual({ ring: [], cut: [] });
  });
  test('a step in level goes there and back: drives are matched by ear, so that only the 3 dB of trim are a step', () => {
    expect(pair('01', '04').stepDb).toBe(3);
    expect(pair('07', '16').stepDb).toBe(12);
    for (const t of board(d))
      expect([t.from, t.to, pair(t.to.slice(6), t.from.slice(6)).stepDb]).toEqual([t.from, t.to, -t.stepDb! || 0]);
  });
});

test('a sound that is proved is wrong after no other, on random rigs', () => {
  let looked = 0;
  for (let seed = 1; seed <= 40; seed += 1) {
    const { rig, hookup } = randomRig(seed);
    const now = deriveOnce(rig, hookup.id)!;
    for (const t of board(now)) {
      if (now.verdicts.get(t.to)!.is !== 'proved') continue;
      looked += 1;
      expect([seed, t.from, t.to, t.wrong]).toEqual([seed, t.from, t.to, []]);
      expect(t.settleMs).toBeGreaterThanOrEqual(0);
    }
  }
  expect(looked).toBeGreaterThan(60);
});

describe('what differs between two sounds', () => {
  test('control by control, with both values', () => {
    const changed = differences(d.compilation, 'sound:01', 'sound:02');
    expect(changed).toEqual(
      expect.arrayContaining([
        { control: 'device:swi.loop3', from: 'off', to: 'on' },
        { control: 'device:dly.program', from: '0', to: '4' },
        { control: 'device:rev.program', from: '3', to: '4' },
      ]),
    );
    expect(changed.map((c) => c.control)).not.toContain('device:swi.loop1');
  });
  test('a sound and itself do not differ; a sound that is not there says nothing', () => {
    expect(differences(d.compilation, 'sound:05', 'sound:05')).toEqual([]);
    expect(differences(d.compilation, 'sound:05', 'sound:none')).toEqual([]);
  });
});

describe('knobs that a hand turns', () => {
  const dial = (rig: Rig, where: DialCase, line: string): Rig =>
    after(rig, setDials(rig, 'device:low', where, readDials(line).stands, '2026-05-01'));
  const heard = board(d)
    .map((t) => t.to)
    .filter((sound) => isUsed(d, sound, 'device:low'));
  const [one, other] = [...new Set(heard)] as [Id<'sound'>, Id<'sound'>];
  const dialled = dial(dial(demo, {}, 'gain noon'), { sound: one }, "gain 3 o'clock");
  const now = board(deriveOnce(dialled, BALLROOM_ID)!);
  const turns = (from: Id<'sound'>, to: Id<'sound'>) =>
    now.find((t) => t.from === from && t.to === to)!.turns.map((t) => t.at);
  test('are turned there and back again, and not where the box is not heard', () => {
    expect([turns(other, one), turns(one, other)]).toEqual([["3 o'clock"], ['noon']]);
    const silent = [...d.rig.parts.sound.keys()].find((s) => !heard.includes(s))!;
    expect(turns(one, silent)).toEqual([]);
  });
});
