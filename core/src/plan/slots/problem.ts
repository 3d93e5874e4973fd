/** Sounds of songs, to be placed on the switches of a controller. Sounds, banks and switches are counted from 0. */
export interface SlotsProblem {
  readonly banks: number;
  /** Switches in a bank. */
  readonly switches: number;
  /** Whether the bank after the last is the first. */
  readonly wrap: boolean;
  /** Whether there is a key down as well as up. */
  readonly bankKeys: 'both' | 'up';
  readonly sounds: number;
  /** In how many slots a sound may stand. */
  readonly copies: number;
  /** The sounds of each song, cue after cue. */
  readonly songs: readonly (readonly number[])[];
  readonly pinned?: readonly SlotPlace[];
  /** Sounds of which no two may share a bank, such as those of a role that has one switch in every bank. */
  readonly apart?: readonly (readonly number[])[];
  /** The group of each sound, where a bank may hold sounds of one group only. */
  readonly groups?: readonly number[];
}

export type SlotPlace = readonly [sound: number, bank: number, switchOf: number];

export interface SlotsCost {
  /** Calls and bank presses over all songs. */
  readonly stomps: number;
  /** The bank presses among them. */
  readonly bankPresses: number;
}

/** How often a bank key is pressed from one bank to another; Infinity where none leads there. */
export const pressesBetween = (
  { banks, wrap, bankKeys }: Pick<SlotsProblem, 'banks' | 'wrap' | 'bankKeys'>,
  from: number,
  to: number,
): number => {
  if (bankKeys === 'up') return to < from && !wrap ? Infinity : (to - from + banks) % banks;
  const straight = Math.abs(from - to);
  return wrap ? Math.min(straight, banks - straight) : straight;
};

/** A song without the cues that call what sounds already. */
export const withoutRepeats = (song: readonly number[]): readonly number[] =>
  song.filter((sound, i) => i === 0 || sound !== song[i - 1]);

/** One stomp for each cue of a song after its first, which is called before it begins. */
export const callsIn = (songs: SlotsProblem['songs']): number =>
  songs.reduce((sum, song) => sum + Math.max(0, withoutRepeats(song).length - 1), 0);

/**
 * How many switches of a bank are taken by what is pinned there: scenes of one preset stand on the same switch.
 */
export const pinnedIn = ({ pinned = [] }: SlotsProblem, bank: number): number =>
  new Set(pinned.flatMap(([, b, k]) => (b === bank ? [k] : []))).size;

/** How often these places have in one bank what must not share one. */
const crowding = ({ apart = [], groups }: SlotsProblem, places: readonly SlotPlace[]): number => {
  const banks = new Map<number, number[]>();
  for (const [sound, bank] of places) banks.set(bank, [...(banks.get(bank) ?? []), sound]);
  let times = 0;
  for (const held of banks.values()) {
    for (const those of apart) times += Math.max(0, held.filter((s) => those.includes(s)).length - 1);
    if (groups) times += new Set(held.map((s) => groups[s])).size - 1;
  }
  return times;
};

/** How often a bank holds what must not share one; what is pinned together is nobody's fault. */
export const faultsIn = (problem: SlotsProblem, places: readonly SlotPlace[]): number =>
  crowding(problem, places) - crowding(problem, problem.pinned ?? []);

/** Every sound that a song uses. */
export const usedSounds = ({ songs }: SlotsProblem): readonly number[] =>
  [...new Set(songs.flat())].sort((a, b) => a - b);

/**
 * What a placement costs the feet. Of a sound that stands in two slots the player takes the ones that make the whole
 * song cheapest.
 * @throws when a sound of a song stands nowhere, or no bank key leads on
 */
export const costOf = (problem: SlotsProblem, places: readonly SlotPlace[]): SlotsCost => {
  const homes = new Map<number, number[]>();
  for (const [sound, bank] of places) homes.set(sound, [...(homes.get(sound) ?? []), bank]);
  const banksOf = (sound: number): readonly number[] => {
    const found = homes.get(sound);
    if (!found) throw new Error(`Sound ${sound} stands nowhere.`);
    return found;
  };
  let bankPresses = 0;
  for (const song of problem.songs) {
    const cues = withoutRepeats(song);
    if (cues.length === 0) continue;
    let here = new Map(banksOf(cues[0]!).map((bank) => [bank, 0]));
    for (const cue of cues.slice(1))
      here = new Map(
        banksOf(cue).map((bank) => [
          bank,
          Math.min(...[...here].map(([from, presses]) => presses + pressesBetween(problem, from, bank))),
        ]),
      );
    const least = Math.min(...here.values());
    if (least === Infinity) throw new Error('No bank key leads on in a song.');
    bankPresses += least;
  }
  return { stomps: bankPresses + callsIn(problem.songs), bankPresses };
};

/**
 * Which place the feet take for each cue of each song, so that every song is as cheap as it can be; repeats of a cue stay.
 * @param isLiked of places that are as good, one for which this holds is taken
 */
export const usedPlaces = (
  problem: SlotsProblem,
  places: readonly SlotPlace[],
  isLiked: (place: SlotPlace) => boolean,
): readonly (readonly SlotPlace[])[] => {
  const homes = (sound: number): readonly SlotPlace[] => places.filter(([s]) => s === sound);
  const dislike = (place: SlotPlace): number => (isLiked(place) ? 0 : 1e-3);
  return problem.songs.map((song) => {
    const cues = withoutRepeats(song);
    let ways = homes(cues[0] ?? -1).map((place) => ({ cost: dislike(place), way: [place] }));
    for (const cue of cues.slice(1))
      ways = homes(cue).map((place) =>
        ways
          .map(({ cost, way }) => {
            const [, from] = way.at(-1) ?? place;
            return { cost: cost + pressesBetween(problem, from, place[1]) + dislike(place), way: [...way, place] };
          })
          .reduce((a, b) => (b.cost < a.cost ? b : a)),
      );
    const best = ways.length ? ways.reduce((a, b) => (b.cost < a.cost ? b : a)).way : [];
    let at = -1;
    const taken: SlotPlace[] = [];
    song.forEach((sound, i) => {
      if (i === 0 || sound !== song[i - 1]) at += 1;
      const place = best[at];
      if (place) taken.push(place);
    });
    return taken;
  });
};
