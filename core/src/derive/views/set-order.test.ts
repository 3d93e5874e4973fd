import fc from 'fast-check';
import { after } from '../../../testing/after.js';
import { islandRun } from '../../demo/island-run.js';
import { carrySong } from '../../edits/set-list.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { SetList, Song } from '../../rig/show.js';
import { setOrder, type OrderCost } from './set-order.js';

const demo = islandRun();
const guitars = all(demo, 'device').filter((d) => d.ends?.some((e) => e.is === 'source'));
const songs = all(demo, 'song');

interface Held {
  readonly guitar: number;
  readonly tuning: number;
  readonly capo: number;
}
/** A set of songs that say what is in hand; a break before some of them. */
const night = (held: readonly Held[], breaks: readonly number[]): { readonly rig: Rig; readonly list: SetList } => {
  const put = held.map(({ guitar, tuning, capo }, i): Song => {
    const { capo: _, tuning: __, ...song } = songs[i]!;
    return {
      ...song,
      instrument: guitars[guitar]!.id,
      tuning: ['standard', 'drop D'][tuning]!,
      ...(capo ? { capo } : {}),
    };
  });
  const list: SetList = {
    kind: 'setList',
    id: 'setList:x',
    name: 'X',
    songs: put.map((s) => s.id),
    before: breaks.filter((i) => i > 0 && i < put.length).map((i) => ({ song: put[i]!.id, comes: 'break' })),
  };
  return { rig: after(demo, { put: [...put, list], remove: [] }), list };
};
const held = fc.record({ guitar: fc.nat(1), tuning: fc.nat(1), capo: fc.constantFrom(0, 2) });
const cost = (c: OrderCost): number => c.instruments * 10_000 + c.retunings * 100 + c.capos;
const orders = <T>(of: readonly T[]): readonly (readonly T[])[] =>
  of.length <= 1 ? [of] : of.flatMap((one, i) => orders(of.toSpliced(i, 1)).map((rest) => [one, ...rest]));
const costOf = (rig: Rig, list: SetList, ids: SetList['songs']): OrderCost =>
  setOrder(rig, { ...list, songs: ids, before: [] }).now;

test('against every order of up to six songs: none has fewer changes of instrument, and none with as few fewer retunings', () => {
  fc.assert(
    fc.property(fc.array(held, { minLength: 2, maxLength: 6 }), (those) => {
      const { rig, list } = night(those, []);
      const { now, best } = setOrder(rig, list);
      const all = orders(list.songs).map((ids) => costOf(rig, list, ids));
      const [fewest] = [...all].sort((a, b) => a.instruments - b.instruments || a.retunings - b.retunings);
      const found = best?.cost ?? now;
      expect(found.instruments).toBe(fewest!.instruments);
      expect(found.retunings).toBe(fewest!.retunings);
    }),
    { numRuns: 40 },
  );
});
test('songs that do not say what is in hand cost no change of instrument that another order would spare', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(0, 1, 2), { minLength: 2, maxLength: 6 }), (those) => {
      const { rig: whole, list } = night(
        those.map((guitar) => ({ guitar: guitar % 2, tuning: 0, capo: 0 })),
        [],
      );
      const unsaid = those.flatMap((guitar, i) => {
        const { instrument: _, ...song } = partOf(whole, list.songs[i]!)!;
        return guitar === 2 ? [song] : [];
      });
      const rig = after(whole, { put: unsaid, remove: [] });
      const { now, best } = setOrder(rig, list);
      const fewest = Math.min(...orders(list.songs).map((ids) => costOf(rig, list, ids).instruments));
      expect((best?.cost ?? now).instruments).toBe(fewest);
    }),
    { numRuns: 30 },
  );
});
test('every song stays in its part of the night, none is lost, and what is found costs what it says', () => {
  fc.assert(
    fc.property(
      fc.array(held, { minLength: 3, maxLength: 12 }),
      fc.array(fc.nat(11), { maxLength: 2 }),
      (those, breaks) => {
        const { rig, list } = night(those, breaks);
        const { now, best, moves } = setOrder(rig, list);
        const partIn = (id: string): number =>
          list.songs
            .slice(0, list.songs.findIndex((s) => s === id) + 1)
            .filter((s) => list.before?.some((b) => b.song === s)).length;
        if (best) {
          expect([...best.songs].sort()).toEqual([...list.songs].sort());
          const parts = best.songs.map(partIn);
          expect(parts).toEqual([...parts].sort((a, b) => a - b));
          expect(cost(costOf(rig, list, best.songs))).toBe(cost(best.cost));
          expect(cost(best.cost)).toBeLessThan(cost(now));
        }
        for (const move of moves) {
          const carried = partOf(after(rig, carrySong(list, move.from, move.to)), list.id)!;
          expect(cost(costOf(rig, list, carried.songs))).toBe(cost(move.after));
          expect(cost(move.after)).toBeLessThan(cost(now));
        }
      },
    ),
    { numRuns: 60 },
  );
});
test('a set that is in order says nothing', () =>
  expect(setOrder(demo, partOf(demo, 'setList:ferry')!)).toMatchObject({ best: undefined, moves: [] }));
