import { after } from '../../../testing/after.js';
import { often } from '../../../testing/often.js';
import { PRACTICE } from '../../../testing/practice.js';
import { Random } from '../../../testing/random.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { transitions } from '../../recall/verdict/transitions.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { soundsInOrder, type Rig } from '../../rig/rig.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';
import { footChange } from './foot-change.js';
import { movesBetween, onFoot, stompsWith } from './on-foot.js';
import { songCards } from './song-cards.js';
import { provedWith } from './switcher-tried.js';

const covers = PRACTICE.find((p) => p.file === 'covers-on-plain-pedals')!.rig;
const derived = (rig: Rig): Derived => deriveOnce(rig, SMALL)!;
const song = (rig: Rig, title: string, bpm: number | undefined, names: readonly string[]): Rig =>
  after(rig, {
    put: [
      {
        kind: 'song',
        id: `song:${title.toLowerCase()}`,
        title,
        ...(bpm === undefined ? {} : { bpm }),
        cues: names.map((name) => ({
          name: `the ${name}`,
          call: { sound: soundsInOrder(rig).find((s) => s.name === name)!.id },
        })),
      },
    ],
    remove: [],
  });
const board = (rig: Rig) => onFoot(derived(rig).compilation);

const PEDALS = ['wah', 'compressor', 'low-drive', 'high-drive', 'chorus', 'analog-delay', 'boost'] as const;
const STAGES = ['wah', 'compressor', 'overdrive', 'overdrive', 'modulation', 'delay', 'boost'] as const;
/** A chain of pedals that only a foot turns, and sounds that have some of them. */
const randomBoard = (seed: number) => {
  const r = new Random(seed);
  const count = r.int(2, 5);
  const start = r.int(0, PEDALS.length - count);
  const ids = PEDALS.slice(start, start + count).map((_, i) => `p${i}`);
  const boxes = Object.fromEntries(ids.map((id, i) => [id, PEDALS[start + i]!]));
  const chain = ['g', ...ids, 'w'];
  const sounds = Object.fromEntries(
    Array.from({ length: r.int(2, 4) }, (_, n) => [
      `Sound ${n}`,
      ids.flatMap((id, i) => (r.chance(50) ? [`${id}.${STAGES[start + i]!}`] : [])),
    ]),
  );
  const rig = smallRig({
    boxes: { g: 'single-coil', ...boxes, w: 'powered-speaker' },
    leads: chain.slice(1).map((id, i) => `${chain[i]}.out>${id}.in`),
    sounds,
  });
  return { rig, ids, sounds };
};

/** The fewest stomps from one state of a board to another, every order tried: a search by breadth. */
const fewest = (from: readonly boolean[], to: readonly boolean[]): number => {
  const key = (s: readonly boolean[]) => s.join();
  const seen = new Set([key(from)]);
  let [at, steps] = [[from], 0];
  while (!at.some((s) => key(s) === key(to))) {
    at = at.flatMap((s) =>
      s.flatMap((_, i) => {
        const next = s.with(i, !s[i]);
        if (seen.has(key(next))) return [];
        seen.add(key(next));
        return [next];
      }),
    );
    steps += 1;
  }
  return steps;
};

describe('from sound to sound on a plain board', () => {
  test('the count is the fewest stomps, every order tried, on 500 random boards', () => {
    let counted = 0;
    for (let seed = 1; seed <= often(500); seed += 1) {
      const { rig, ids, sounds } = randomBoard(seed);
      const { compilation } = derived(rig);
      const states = soundsInOrder(rig).map((s) => ({
        id: s.id,
        on: ids.map((id) => sounds[s.name]!.some((stage) => stage.startsWith(`${id}.`))),
      }));
      // What is alike in all sounds is set once and left alone.
      const differs = ids.map((_, i) => new Set(states.map((s) => s.on[i])).size > 1);
      for (const a of states)
        for (const b of states) {
          const moves = movesBetween(compilation, a.id, b.id);
          const [x, y] = [a, b].map((s) => s.on.filter((_, i) => differs[i]));
          expect([seed, a.id, b.id, moves.length]).toEqual([seed, a.id, b.id, fewest(x!, y!)]);
          counted += 1;
        }
    }
    expect(counted).toBeGreaterThan(often(500) * 3);
  });
  test('it is what the board of pairs counts', () => {
    const { compilation, modelled } = derived(covers);
    for (const t of transitions(compilation, modelled))
      if (t.from !== t.to)
        expect([t.from, t.to, movesBetween(compilation, t.from, t.to).length]).toEqual([t.from, t.to, t.hands.length]);
  });
  test('what makes it loud is turned off first and on last', () => {
    const { compilation } = derived(covers);
    const words = (from: string, to: string) => {
      const id = (name: string) => soundsInOrder(covers).find((s) => s.name === name)!.id;
      return movesBetween(compilation, id(from), id(to)).map(
        (m) => `${splitRef(m.control).device.slice(7)} ${m.value}`,
      );
    };
    expect(words('Lead', 'Echo').slice(0, 2).sort()).toEqual(['hig off', 'low off']);
    expect(words('Echo', 'Lead').slice(-2).sort()).toEqual(['hig on', 'low on']);
  });
});

describe('over the songs', () => {
  const set = [
    ['Harbour', 144, ['Clean', 'Wah solo', 'Clean']],
    ['Pier', undefined, ['Chorus', 'Lead']],
  ] as const;
  const rig = set.reduce((r, [title, bpm, names]) => song(r, title, bpm, names), covers);
  test('stomps are counted cue by cue, also from one song to the next', () => {
    const found = board(rig)!;
    const { compilation } = derived(rig);
    const id = (name: string): Id<'sound'> => soundsInOrder(rig).find((s) => s.name === name)!.id;
    const way = ['Clean', 'Wah solo', 'Clean', 'Chorus', 'Lead'].map(id);
    const count = way.slice(1).reduce((n, to, i) => n + movesBetween(compilation, way[i]!, to).length, 0);
    expect([found.changes, found.stomps]).toEqual([4, count]);
  });
  test('the worst change inside a song is held against its beat', () => {
    const { worstInSong, worst } = board(rig)!;
    expect(worst!.moves).toHaveLength(7);
    expect(worstInSong).toMatchObject({ song: 'Harbour', from: 'Clean', to: 'Wah solo' });
    expect(worstInSong!.beat).toBeCloseTo(60 / 144);
    expect(worstInSong!.seconds).toBeCloseTo(worstInSong!.moves.length * 0.3);
  });
  test('a switcher with more loops never leaves more stomps, and every choice of boxes was tried', () => {
    const { switchers, stomps } = board(rig)!;
    expect(switchers.map((s) => s.loops)).toEqual([4, 6, 8]);
    expect(switchers.map((s) => s.stomps)).toEqual([...switchers.map((s) => s.stomps)].sort((a, b) => b - a));
    expect(switchers[0]!.stomps).toBeLessThan(stomps);
    const { compilation } = derived(rig);
    const id = (name: string) => soundsInOrder(rig).find((s) => s.name === name)!.id;
    const way = ['Clean', 'Wah solo', 'Clean', 'Chorus', 'Lead'].map(id);
    const changes = way.slice(1).map((to, i) => movesBetween(compilation, way[i]!, to));
    const pedals = ['wah', 'cmp', 'low', 'hig', 'cho', 'dly'];
    const all = Array.from({ length: 2 ** pedals.length }, (_, bits) =>
      pedals.filter((_p, i) => (bits >> i) & 1).map((p) => `device:${p}`),
    ).filter((chosen) => chosen.length === 4);
    expect(switchers[0]!.stomps).toBe(Math.min(...all.map((chosen) => stompsWith(changes, new Set(chosen)))));
  });
  test('where a slot calls the sounds, or nothing has to be hit, there is nothing to say', () => {
    const bare = { boxes: { g: 'single-coil', w: 'powered-speaker' }, leads: ['g.out>w.in'], sounds: { A: [] } };
    expect(board(smallRig(bare))).toBeUndefined();
    expect(onFoot(deriveOnce(islandRun(), BALLROOM_ID)!.compilation)).toBeUndefined();
  });
});

describe('with a loop switcher', () => {
  const d = derived(covers);
  const boxes = [...d.rig.parts.device.values()];
  const pedals = boxes.filter((b) => ['low-drive', 'high-drive', 'analog-delay', 'chorus'].includes(b.made ?? ''));
  test('more sounds come back by themselves than without, and none less with all pedals in loops', () => {
    const before = [...d.answers.values()].filter((a) => a.is === 'proved').length;
    expect(before).toBe(0);
    const four = provedWith(
      d,
      4,
      pedals.map((b) => b.id),
    )!;
    const all = provedWith(
      d,
      8,
      boxes.filter((b) => b.zone === 'floor' && b.chains.length > 0).map((b) => b.id),
    )!;
    expect(four).toBeGreaterThanOrEqual(before);
    expect(all).toBeGreaterThanOrEqual(four);
  });
  test('what cannot be wired so is not counted', () => expect(provedWith(d, 4, ['device:none'])).toBeUndefined());
});

test('from one sound to another: what stays if it is forgotten, and in which songs a beat is enough', () => {
  const [a, b] = soundsInOrder(covers);
  const with2 = song(song(covers, 'Slow', 20, [a!.name, b!.name]), 'Fast', 400, [a!.name, b!.name]);
  const change = footChange(derived(with2), a!.id, b!.id);
  expect(change.steps.map((s) => s.text)).toEqual(
    movesBetween(derived(with2).compilation, a!.id, b!.id).map((m) => expect.stringContaining(String(m.value))),
  );
  for (const s of change.steps) expect(s.forgotten).toMatch(/ stays /);
  expect(change.songs.filter((s) => s.title === 'Slow' || s.title === 'Fast').map((s) => s.fits)).toEqual([
    true,
    false,
  ]);
});

test('a card for the floor begins with how all stands, and says at each cue only what is otherwise', () => {
  const [a, b] = soundsInOrder(covers);
  const rig = song(covers, 'Card', 100, [a!.name, b!.name, b!.name]);
  const card = songCards(derived(rig)).find((c) => c.title === 'Card')!;
  expect(card.about).toEqual(['100 a minute']);
  expect(card.start.at(-1)).toMatch(/all else off| off$/);
  expect(card.cues.map((c) => c.sound)).toEqual([a!.name, b!.name, b!.name]);
  expect(card.cues[0]!.does).toEqual([]);
  expect(card.cues[1]!.does.length).toBe(movesBetween(derived(rig).compilation, a!.id, b!.id).length);
  expect(card.cues[2]!.does).toEqual([]);
});
