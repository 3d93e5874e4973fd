import fc from 'fast-check';
import { often } from '../../testing/often.js';
import { Random } from '../../testing/random.js';
import { randomRig } from '../../testing/random-rig.js';
import { apply } from '../change/apply.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { all, soundsInOrder } from '../rig/rig.js';
import { callersIn, callFrom, placesOf, slotFrom, toRetype } from './calls.js';
import { tick } from './ticks.js';

const rig = islandRun();
const named = (name: string) => soundsInOrder(rig).find((s) => s.name === name)!;
const [caller] = callersIn(rig);

describe('who calls a sound', () => {
  test('the controllers of the rig, and what stands in each of their places', () => {
    expect(callersIn(rig).map(({ code, by }) => [code, by])).toContainEqual(['SWI', 'slot']);
    const places = placesOf(rig, caller!);
    expect(places.slice(0, 2).map((p) => [p.text, p.sound?.name])).toEqual([
      ['1A', 'Verse clean'],
      ['1B', 'Chorus crunch'],
    ]);
    expect(places.some((p) => p.sound === undefined)).toBe(true);
  });

  test('two sounds change places; into a free place one moves alone; from none the other loses its own', () => {
    const swapped = apply(rig, callFrom(rig, named('Verse clean'), caller!, 1));
    if (!swapped.ok) throw new Error('refused');
    expect(
      placesOf(swapped.value.rig, caller!)
        .slice(0, 2)
        .map((p) => p.sound?.name),
    ).toEqual(['Chorus crunch', 'Verse clean']);
    const free = placesOf(rig, caller!).find((p) => !p.sound)!;
    expect(callFrom(rig, named('Lead'), caller!, free.slot).put).toHaveLength(1);
    const uncalled = apply(rig, callFrom(rig, named('Lead'), caller!, undefined));
    if (!uncalled.ok) throw new Error('refused');
    const lead = uncalled.value.rig.parts.sound.get(named('Lead').id)!;
    expect(slotFrom(rig, lead, caller!)).toBeUndefined();
    const taken = apply(uncalled.value.rig, callFrom(uncalled.value.rig, lead, caller!, 0));
    if (!taken.ok) throw new Error('refused');
    expect(
      slotFrom(taken.value.rig, taken.value.rig.parts.sound.get(named('Verse clean').id)!, caller!),
    ).toBeUndefined();
  });

  test('says which typed places hold something else afterwards', () => {
    const place = { device: caller!.device, memory: caller!.memory, number: 1 };
    const typed = apply(
      rig,
      tick(rig, place, [{ text: 'a', is: 'a' }], [{ text: 'a', is: 'a' }], {
        by: 'x',
        revision: 1,
        when: '2026-01-01T00:00:00Z',
      }),
    );
    if (!typed.ok) throw new Error('refused');
    expect(toRetype(typed.value.rig, named('Verse clean'), caller!, 1)).toEqual(['1B']);
    expect(toRetype(typed.value.rig, named('Verse clean'), caller!, 2)).toEqual([]);
  });

  test('whatever is chosen, it can be kept, the sound stands there, and no place calls two', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (s) => {
        const { rig: any } = randomRig(s);
        const r = new Random(s);
        const sounds = all(any, 'sound');
        const callers = callersIn(any);
        if (!sounds.length || !callers.length) return;
        const sound = sounds[r.int(0, sounds.length - 1)]!;
        const by = callers[r.int(0, callers.length - 1)]!;
        const slot = r.int(0, Math.min(20, placesOf(any, by).length - 1));
        const done = apply(any, callFrom(any, sound, by, slot));
        if (!done.ok) throw new Error(JSON.stringify(done.error));
        expect(slotFrom(done.value.rig, done.value.rig.parts.sound.get(sound.id)!, by)).toBe(slot);
        const after = all(done.value.rig, 'sound').filter((x) => slotFrom(done.value.rig, x, by) === slot);
        expect(after).toHaveLength(1);
      }),
      { numRuns: often(60) },
    ));
});

test('what calls a sound in another hook-up stays when its place in this one changes', () => {
  const [device, memory] = ['device:swi', 'slots'] as const;
  const first = [...islandRun().parts.sound.values()][0]!;
  const there = { device, memory, slot: 40, in: { hookup: 'hookup:elsewhere' } } as const;
  const both = { ...first, calls: [{ device, memory, slot: 0, in: { hookup: BALLROOM_ID } }, there] };
  const moved = callFrom(islandRun(), both, { device, memory }, 30).put[0] as typeof both;
  expect(moved.calls).toEqual([{ device, memory, slot: 30, in: { hookup: BALLROOM_ID } }, there]);
});
