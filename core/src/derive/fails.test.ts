import { after } from '../../testing/after.js';
import { PRACTICE } from '../../testing/practice.js';
import { mayJoin } from '../edits/cables.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { afterFailure, outcomeOf, type SoundAfter } from '../plan/fails/after.js';
import { failuresOf, keyOf, type Failure } from '../plan/fails/failure.js';
import { quickestRepatch } from '../plan/fails/repatch.js';
import type { Bench } from '../bench/bench.js';
import type { Edit } from '../change/edit.js';
import { splitRef, type Id } from '../rig/ids.js';
import { all, partOf, thePart, type Rig } from '../rig/rig.js';
import { deriveOnce, type Derived } from './steps/deriver.js';
import { setUpBench, takeStep } from './play/play.js';
import { momentOf } from './views/bench-view.js';

const RIGS: readonly (readonly [string, Rig])[] = [
  ...DEMO_RIGS.map(({ id, make }) => [id, make()] as const),
  ...PRACTICE.map((p) => [p.file, p.rig] as const),
];

/** A bench on which it has failed, if a bench can show it: a box that does not live by wire alone. */
const failedOn = (d: Derived, failure: Failure): Bench | undefined => {
  const dark =
    failure.is === 'box'
      ? [failure.device]
      : failure.is === 'cable'
        ? []
        : failure.feeds.map((j) => splitRef(j).device);
  const isWire = dark.some(
    (id) => thePart(d.rig, id).chains.some((c) => c.passive) || !!thePart(d.rig, id).figures.battery,
  );
  if (dark.length === 0 || isWire) return undefined;
  const bench = setUpBench(d, {});
  for (const id of dark) bench.faults.darken(id);
  return bench;
};

const replug = (d: Derived, bench: Bench, edit: Edit): void => {
  for (const id of edit.remove) bench.faults.pull(partOf(d.rig, id as Id<'cable'>)!);
  for (const part of edit.put) if (part.kind === 'cable') bench.faults.plug(part);
};

/** Ends that stay silent on the bench when a sound is called. */
const silentOn = (d: Derived, bench: Bench, sound: Id<'sound'>, dead: readonly Id<'device'>[]): readonly string[] => {
  takeStep(d, bench, { does: 'recall', sound });
  const { traced } = momentOf(d, bench);
  const wanted = d.compilation.sounds.get(sound)!.heard.filter((h) => h.as === 'sounds' || h.as === 'stereo');
  return [
    ...new Set(
      wanted
        .filter(
          ({ from, at }) =>
            dead.some((id) => [at, from].some((end) => end.startsWith(`${id}.`))) ||
            !traced.reaches.some((r) => r.source.ref === from && r.end.ref === at),
        )
        .map((w) => w.at),
    ),
  ];
};

const called = (a: SoundAfter): boolean => !a.uncalled && a.stays.length === 0;

const played = new Map<string, number>();
test.each(RIGS)('%s: what is said of every failure, and of its way out, is what the bench does', (name, rig) => {
  let seen = 0;
  for (const hookup of all(rig, 'hookup').slice(0, 1)) {
    const d = deriveOnce(rig, hookup.id)!;
    const proved = new Set(
      [...d.verdicts].flatMap(([id, v]) =>
        v.is === 'proved' && d.compilation.sounds.get(id as Id<'sound'>)?.hand.length === 0 ? [id] : [],
      ),
    );
    for (const failure of failuresOf(rig, d.hookup, d.anatomy)) {
      const after = afterFailure(d.compilation, failure);
      const dead = failure.is === 'box' ? [failure.device] : [];
      const bench = failedOn(d, failure);
      const told = after.filter((a) => proved.has(a.sound) && called(a)).slice(0, 4);
      if (bench)
        for (const a of told) {
          expect([keyOf(failure), a.sound, silentOn(d, bench, a.sound, dead)]).toEqual([
            keyOf(failure),
            a.sound,
            a.silentAt,
          ]);
          seen += 1;
        }
      const way = quickestRepatch(d.compilation, failure, after);
      for (const part of way?.edit.put ?? []) if (part.kind === 'cable') expect(mayJoin(rig, ...part.ends)).toBe(true);
      const again = way && failedOn(d, failure);
      if (!way || !again) continue;
      replug(d, again, way.edit);
      for (const part of failure.is === 'box' ? [] : way.edit.put)
        if (part.kind === 'cable') again.faults.light(splitRef(part.ends[1]).device);
      const instead =
        way.hands.some((h) => h.does === 'turn' || h.does === 'stomp') ||
        way.edit.put.some(
          (p) => p.kind === 'cable' && p.ends.some((end) => d.anatomy.wiring.sources.some((s) => s.ref === end)),
        );
      for (const a of instead ? [] : way.after.filter((w) => told.some((t) => t.sound === w.sound) && called(w))) {
        expect([keyOf(failure), a.sound, silentOn(d, again, a.sound, dead)]).toEqual([
          keyOf(failure),
          a.sound,
          a.silentAt,
        ]);
        seen += 1;
      }
    }
  }
  played.set(name, seen);
});

test('so many sounds were played on a bench on which something had failed', () => {
  expect([...played.values()].reduce((a, b) => a + b, 0)).toBeGreaterThan(300);
});

describe('the island run in the ballroom', () => {
  const d = deriveOnce(DEMO_RIGS[0]!.make(), 'hookup:ballroom')!;
  const told = (of: (f: Failure) => boolean) => {
    const failure = failuresOf(d.rig, d.hookup, d.anatomy).find(of)!;
    const after = afterFailure(d.compilation, failure);
    const way = quickestRepatch(d.compilation, failure, after);
    const count = (list: readonly SoundAfter[]) => {
      const counted: Record<string, number> = {};
      for (const a of list) counted[outcomeOf(a)] = (counted[outcomeOf(a)] ?? 0) + 1;
      return counted;
    };
    return { after: count(after), hands: way?.hands, leads: way?.leads, then: way && count(way.after) };
  };
  const box = (code: string) => told((f) => f.is === 'box' && thePart(d.rig, f.device).code === code);
  test('a dead drive with a mechanical bypass: stomped off, only its own stage is missing', () =>
    expect(box('LOW')).toEqual({
      after: { whole: 8, silent: 8 },
      hands: [{ does: 'stomp', device: 'device:low' }],
      leads: 0,
      then: { whole: 8, less: 8 },
    }));
  test('a dead reverb that no foot takes out: two plugs pulled, and its loop closes', () =>
    expect(box('REV')).toEqual({
      after: { silent: 16 },
      hands: [
        { does: 'pull', at: 'device:swi.send8', other: 'device:rev.in-l' },
        { does: 'pull', at: 'device:rev.out-l', other: 'device:swi.return8' },
      ],
      leads: 0,
      then: { less: 16 },
    }));
  test('a dead head: never a line into a loudspeaker; the preamp for the desk that stays at home takes its place', () => {
    const { hands, then } = box('HED');
    expect(then).toEqual({ less: 16 });
    expect(hands).toContainEqual({ does: 'lead', from: 'device:pre.out', to: 'device:foh.ch2' });
    expect(hands!.some((h) => h.does !== 'pull' && 'to' in h && h.to === 'device:cab.in')).toBe(false);
  });
  test('a box that passes MIDI on: those behind it are deaf, and are led past it', () => {
    const { after, hands } = box('MOD');
    expect(after).toEqual({ less: 10, silent: 6 });
    expect(hands).toContainEqual({
      does: 'move',
      from: 'device:mod.midi-in',
      to: 'device:dly.midi-in',
      other: 'device:swi.midi-out',
    });
  });
  test('an output of the supply: its box goes on a free one', () =>
    expect(told((f) => f.is === 'output' && f.output === 'device:sup.out2')).toEqual({
      after: { silent: 16 },
      hands: [{ does: 'move', from: 'device:sup.out2', to: 'device:sup.out8', other: 'device:tun.dc' }],
      leads: 0,
      then: { whole: 16 },
    }));
  test('a string: the other guitar is plugged already, and the selector turned to it', () => {
    const { hands, then } = box('GSC');
    expect([hands, then]).toEqual([[{ does: 'turn', control: 'device:sel.select', value: 'b' }], { whole: 16 }]);
  });
  test('the only cabinet: no plug helps', () =>
    expect(box('CAB')).toMatchObject({ after: { silent: 16 }, hands: undefined }));
});

test('an amp that stands aside has no load: it is never led to the desk in place of a dead one', () => {
  const rig = DEMO_RIGS[0]!.make();
  const spare = { ...thePart(rig, 'device:hed'), id: 'device:spare', code: 'AAA', name: 'A spare head' } as const;
  const d = deriveOnce(after(rig, { put: [spare], remove: [] }), 'hookup:ballroom')!;
  const failure: Failure = { is: 'box', device: 'device:hed' };
  const way = quickestRepatch(d.compilation, failure, afterFailure(d.compilation, failure));
  const used = way?.edit.put.flatMap((p) => (p.kind === 'cable' ? p.ends : [])) ?? [];
  expect(used.length).toBeGreaterThan(0);
  expect(used.filter((end) => end.startsWith('device:spare.'))).toEqual([]);
});
