import type { SlotPlace, SlotsProblem } from '../src/plan/slots/problem.js';
import type { Random } from './random.js';

/** A problem small enough for every placement to be tried, or for a solver to finish at once. */
export const randomSlots = (r: Random, most: { readonly sounds: number; readonly banks: number }): SlotsProblem => {
  const banks = r.int(2, most.banks);
  const switches = r.int(2, 4);
  const wrap = r.chance(50);
  const sounds = r.int(2, Math.min(most.sounds, banks * switches - 1));
  const songs = Array.from({ length: r.int(1, 5) }, () =>
    Array.from({ length: r.int(1, 9) }, () => r.int(0, sounds - 1)),
  );
  const pinned: SlotPlace[] = r.chance(30) ? [[r.int(0, sounds - 1), r.int(0, banks - 1), r.int(0, switches - 1)]] : [];
  return {
    banks,
    switches,
    wrap,
    bankKeys: wrap && r.chance(50) ? 'up' : 'both',
    sounds,
    copies: r.chance(40) ? 2 : 1,
    songs,
    ...(pinned.length ? { pinned } : {}),
  };
};

/** The fewest bank presses over every way to give sounds one bank, or two: by trying all of them. */
export const everyPlacement = (problem: SlotsProblem, visit: (places: readonly SlotPlace[]) => void): void => {
  const { banks, switches, copies, songs, pinned = [] } = problem;
  const used = [...new Set(songs.flat())];
  const free = Array.from({ length: banks }, (_, b) => switches - pinned.filter(([, bank]) => bank === b).length);
  const places: SlotPlace[] = [...pinned];
  const homesOf = (sound: number) => pinned.filter(([s]) => s === sound).map(([, b]) => b);
  const give = (i: number): void => {
    const sound = used[i];
    if (sound === undefined) return visit(places);
    const fixed = homesOf(sound);
    const add = (bank: number, then: () => void): void => {
      if (free[bank] === 0 || fixed.includes(bank)) return;
      free[bank]! -= 1;
      places.push([sound, bank, -1]);
      then();
      places.pop();
      free[bank]! += 1;
    };
    if (fixed.length) give(i + 1);
    for (let a = 0; a < banks; a += 1) {
      if (!fixed.length || copies > 1)
        add(a, () => {
          give(i + 1);
          if (!fixed.length && copies > 1) for (let b = a + 1; b < banks; b += 1) add(b, () => give(i + 1));
        });
    }
  };
  give(0);
};
