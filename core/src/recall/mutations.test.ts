import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { setUpBench, takeStep, wrongOnBench } from '../derive/play/play.js';
import { setWant } from '../edits/sounds.js';
import type { Act } from '../rig/act.js';
import type { Id } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { partOf } from '../rig/rig.js';
import type { Compilation } from './actuate/compile.js';
import { model } from './model/model.js';
import { prove } from '../prover/prove.js';

/**
 * The demo with its two faults cured, and one sound that sends values behind its program change. Every sound is
 * proved.
 */
const cured = (() => {
  let rig = after(islandRun(), { put: [], remove: ['program:swi-5'] });
  for (const [sound, control, is] of [
    ['sound:03', 'device:dly.program', 6],
    ['sound:01', 'device:rev.program', 7],
    ['sound:01', 'device:rev.mix', 40],
  ] as const)
    rig = after(rig, setWant(partOf(rig, sound)!, { control, is }));
  return rig;
})();
const whole = deriveOnce(cured, BALLROOM_ID)!;

type Break = (program: Program) => Program;
const acts =
  (change: (list: readonly Act[]) => readonly Act[]): Break =>
  (p) => ({ ...p, acts: change(p.acts) });
const sends = (which: 'pc' | 'cc', change: (send: Record<string, number>, act: Act) => Act): Break =>
  acts((list) => {
    const i = list.findIndex((a) => 'send' in a && which in a.send);
    if (i < 0) throw new Error(`nothing sends a ${which}`);
    return list.map((a, k) => (k === i && 'send' in a ? change({ ...a.send } as never, a) : a));
  });
const contents =
  (change: Readonly<Record<string, string | number>>): Break =>
  (p) => ({ ...p, contents: { ...(p.contents as Record<string, string>), ...change } });

/** What a slip of the compiler would store instead. */
const broken = (sound: Id<'sound'>, slip: Break): Compilation => {
  const { compilation } = whole;
  const compiled = compilation.sounds.get(sound)!;
  return {
    ...compilation,
    sounds: new Map(compilation.sounds).set(sound, {
      ...compiled,
      stored: compiled.stored.map((s) => ({ ...s, program: slip(s.program) })),
    }),
  };
};

const caughtBy = (sound: Id<'sound'>, slip: Break): { readonly prover: boolean; readonly bench: boolean } => {
  const compilation = broken(sound, slip);
  const modelled = model(compilation);
  const playable = { compilation, modelled };
  const bench = ['sound:08', 'sound:02', undefined].some((before) => {
    const stands = setUpBench(playable, {}, false);
    for (const id of before ? [before, sound] : [sound])
      takeStep(playable, stands, modelled.steps.get(`recall:${id}`)!);
    return wrongOnBench(playable, stands, sound).length > 0;
  });
  return { prover: prove(modelled.system).get(sound)!.is === 'broken', bench };
};

test('unbroken, every sound is proved and stands right on the bench', () => {
  expect([...whole.verdicts.values()].filter((v) => v.is !== 'proved')).toEqual([]);
  for (const id of whole.compilation.sounds.keys())
    expect([id, caughtBy(id, (p) => p)]).toEqual([id, { prover: false, bench: false }]);
});

test.each<[string, Id<'sound'>, Break]>([
  ['one channel off', 'sound:04', sends('pc', (s, a) => ({ ...a, send: { ...s, channel: s.channel! + 6 } }) as never)],
  ['the number one off', 'sound:04', sends('pc', (s, a) => ({ ...a, send: { ...s, pc: s.pc! + 1 } }) as never)],
  [
    'a program change left out',
    'sound:04',
    acts((list) => list.filter((a) => !('send' in a && 'pc' in a.send && a.send.channel === 3))),
  ],
  ['a loop that should be on is off', 'sound:04', contents({ loop3: 'off' })],
  ['a loop that should be off is on', 'sound:01', contents({ loop3: 'on' })],
  ['the contact left open', 'sound:04', contents({ ctl1: 'open' })],
  ['the output left muted', 'sound:04', contents({ output: 'muted' })],
  ['the trim of another sound', 'sound:04', contents({ trim: 0 })],
  [
    'values sent before their program',
    'sound:01',
    acts((list) => [
      ...list.filter((a) => 'send' in a && 'cc' in a.send),
      ...list.filter((a) => !('send' in a && 'cc' in a.send)),
    ]),
  ],
  [
    'the pause left out, so that values fall into the load gap',
    'sound:01',
    acts((list) =>
      list.map((a) => {
        const { afterMs: _, ...rest } = a as Act & { afterMs?: number };
        return rest as Act;
      }),
    ),
  ],
  [
    'a value one step off',
    'sound:01',
    acts((list) =>
      list.map((a) =>
        'send' in a && 'cc' in a.send && a.send.cc === 20 ? { ...a, send: { ...a.send, value: a.send.value + 3 } } : a,
      ),
    ),
  ],
  [
    'a toggle sent once too often',
    'sound:04',
    acts((list) => [...list, { send: { cc: 102, value: 127, channel: 3 }, at: 'midi-out', afterMs: 200 }]),
  ],
])('a compiler that slips is caught: %s', (_, sound, slip) => {
  expect(caughtBy(sound, slip)).toEqual({ prover: true, bench: true });
});
