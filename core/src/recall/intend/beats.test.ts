import { after, withParts } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { Deriver, deriveOnce } from '../../derive/steps/deriver.js';
import type { Control } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import { beatsText, inBeats, tempoOf } from './beats.js';

const time = (unit: string, min: number, max: number, step?: number): Control => ({
  id: 'time',
  domain: { min, max, unit, ...(step ? { step } : {}) },
  powerUp: 'left',
  use: 'sound',
});
const rigWith = (control: Control): Rig =>
  smallRig({
    boxes: { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', w: 'powered-speaker' },
    leads: ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in'],
    sounds: { Echo: ['d.delay'], Child: [] },
    with: (p: Part): Part => {
      if (p.kind === 'sound')
        return {
          ...p,
          ...(p.id === 'sound:child'
            ? { parent: 'sound:echo' as const }
            : { wants: [...p.wants, { control: 'device:d.time', note: 0.75 }] }),
          calls: [{ device: 'device:c', memory: 'slots', slot: p.at - 1 }],
        };
      return p.kind === 'device' && p.id === 'device:d'
        ? {
            ...p,
            controls: [...p.controls, control],
            actuators: [
              ...p.actuators,
              {
                id: 'time',
                by: { midi: 'cc', number: 30 },
                acts: [
                  {
                    control: 'time',
                    scale: [control.domain as { min: number; max: number }].map((x): [number, number] => [
                      x.min,
                      x.max,
                    ])[0]!,
                  },
                ],
              },
            ],
          }
        : p;
    },
  });
const song = (n: number, bpm: number | undefined, ...sounds: readonly Id<'sound'>[]): Part => ({
  kind: 'song',
  id: `song:${n}`,
  title: `Song ${n}`,
  ...(bpm === undefined ? {} : { bpm }),
  cues: sounds.map((sound) => ({ name: 'verse', call: { sound } })),
});
const ms = rigWith(time('ms', 0, 1270));

describe('a time told in beats', () => {
  test('is worked out at the tempo of the song that calls the sound: three quarters of a beat at 120 are 375 ms', () => {
    const rig = withParts(ms, song(1, 120, 'sound:echo'));
    expect(inBeats(rig, 'sound:echo', 'device:d.time', 0.75)).toBe(375);
    expect(beatsText(rig, 'sound:echo', 'device:d.time', 0.75)).toBe('0.75 beats at 120 are 375 ms');
    expect(
      deriveOnce(rig, SMALL)!
        .compilation.sounds.get('sound:echo')!
        .wants.find((w) => w.control === 'device:d.time')?.value,
    ).toBe(375);
  });
  test.each([
    ['ms', 100, 600, 0.5, 250],
    ['s', 0, 2, 1, 0.5],
    ['bpm', 40, 240, 1, 120],
    ['bpm', 40, 240, 2, 60],
    ['ms', 0, 300, 1, undefined],
    ['%', 0, 100, 1, undefined],
    ['ms', 0, 2000, 0, undefined],
  ] as const)('in %s from %d to %d: %d beats at 120 are %s', (unit, min, max, beats, value) =>
    expect(
      inBeats(
        withParts(rigWith(time(unit, min, max, unit === 's' ? 0.01 : undefined)), song(1, 120, 'sound:echo')),
        'sound:echo',
        'device:d.time',
        beats,
      ),
    ).toBe(value),
  );
  test('a derived sound takes over the beats and counts them at its own tempo', () => {
    const d = deriveOnce(withParts(ms, song(1, 120, 'sound:echo'), song(2, 100, 'sound:child')), SMALL)!;
    expect(
      ['sound:echo', 'sound:child'].map(
        (id) => d.compilation.sounds.get(id as Id<'sound'>)!.wants.find((w) => w.control === 'device:d.time')?.value,
      ),
    ).toEqual([375, 450]);
  });
  test('without a tempo, with two, or beyond what the box can do it is left open, and that is said', () => {
    expect([tempoOf(ms, 'sound:echo'), tempoOf(withParts(ms, song(1, undefined, 'sound:echo')), 'sound:echo')]).toEqual(
      ['none', 'none'],
    );
    const two = withParts(ms, song(1, 120, 'sound:echo'), song(2, 90, 'sound:echo'));
    expect(tempoOf(two, 'sound:echo')).toBe('several');
    expect(tempoOf(withParts(ms, song(1, 120, 'sound:echo'), song(2, 120, 'sound:echo')), 'sound:echo')).toBe(120);
    expect(beatsText(two, 'sound:echo', 'device:d.time', 0.75)).toContain('derive a sound for each');
    expect(beatsText(ms, 'sound:echo', 'device:d.time', 0.75)).toContain('no song with a tempo');
    expect(beatsText(withParts(ms, song(1, 20, 'sound:echo')), 'sound:echo', 'device:d.time', 0.75)).toContain(
      'beyond what time can do',
    );
    expect(
      deriveOnce(two, SMALL)!
        .compilation.sounds.get('sound:echo')!
        .wants.some((w) => w.control === 'device:d.time'),
    ).toBe(false);
  });
  test('a song that changes its tempo is compiled anew, and only for the sounds that count in beats', () => {
    const deriver = new Deriver();
    const slow = withParts(ms, song(1, 120, 'sound:echo'), {
      ...partOf(ms, 'sound:child')!,
      parent: undefined,
    } as never);
    const before = deriver.derive(slow, SMALL)!;
    const now = deriver.derive(after(slow, { put: [song(1, 100, 'sound:echo')], remove: [] }), SMALL)!;
    expect(now.compilation.sounds.get('sound:echo')!.wants.find((w) => w.control === 'device:d.time')?.value).toBe(450);
    expect(now.compilation.sounds.get('sound:child')).toBe(before.compilation.sounds.get('sound:child'));
  });
});
