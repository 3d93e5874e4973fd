import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomGear } from '../../../testing/random-gear.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { readRigFile } from '../../formats/rig-file.js';
import { all, type Rig } from '../../rig/rig.js';
import { bearings } from '../../recall/actuate/bearings.js';
import { compile } from '../../recall/actuate/compile.js';
import type { Footstep } from '../../recall/model/happenings.js';
import { model } from '../../recall/model/model.js';
import { deriveOnce } from '../steps/deriver.js';
import { reckoned } from './reckoned.js';

const FOLDER = join(__dirname, '../../../testing/reference/gear');
const gear = readdirSync(FOLDER)
  .filter((f) => f !== 'index.json')
  .flatMap((f) => {
    const read = readRigFile(readFileSync(join(FOLDER, f), 'utf8'));
    return read.ok ? [read.value] : [];
  });
const RIGS: readonly Rig[] = [
  ...gear,
  ...DEMO_RIGS.map(({ make }) => make()),
  ...Array.from({ length: 25 }, (_, i) => randomGear(i + 1).rig),
];

/** Footsteps of each kind, with the words that must say that they are reckoned with. */
const SAID: readonly (readonly [kinds: readonly Footstep['does'][], words: RegExp])[] = [
  [['foot'], /steps on any switch/],
  [['press', 'release', 'stomp'], /Moves are pressed/],
  [['pedal'], /Pedals are left/],
  [['power'], /loses its power/],
  [['turn'], /turns a knob/],
];

test('what is said of the proof is true of every rig: what can happen is among what it reckons with, and what it leaves out cannot', () => {
  let told = 0;
  for (const rig of RIGS) {
    for (const hookup of all(rig, 'hookup')) {
      const compilation = compile(bearings(rig, hookup));
      const modelled = model(compilation);
      const { with: yes, without } = reckoned({ rig, compilation, modelled });
      const done = new Set([...modelled.steps.values()].map((s) => s.does));
      for (const [kinds, words] of SAID) {
        if (!kinds.some((k) => done.has(k))) continue;
        told += 1;
        expect(yes.some((s) => words.test(s))).toBe(true);
        expect(without.some((s) => words.test(s))).toBe(false);
      }
      for (const sentence of [...yes, ...without]) expect(sentence).toMatch(/^[A-Z0-9].*\.$/);
    }
  }
  expect(told).toBeGreaterThan(140);
});

test('what a player unticks is said to be left out; a box without a plug and a song that is said for too', () => {
  const made = (admits: object) =>
    smallRig({
      boxes: { g: 'single-coil', d: 'stereo-delay', e: 'stereo-reverb', p: 'powered-speaker' },
      leads: ['g.out>d.in-l', 'd.out-l>p.in'],
      sounds: { Dry: [] },
      with: (part) =>
        part.kind === 'hookup' ? { ...part, admits: { moves: true, feet: true, powerCycle: true, ...admits } } : part,
    });
  const of = (rig: Rig) => reckoned(deriveOnce(rig, SMALL)!);
  expect(of(made({})).without).toContain('One box that has no plug in this hook-up.');
  expect(of(made({ feet: false })).without.some((s) => /steps on any switch.*\(not ticked\)/.test(s))).toBe(true);
  expect(of(made({ feet: false })).with.some((s) => /steps on any switch/.test(s))).toBe(false);
  expect(of(made({ knobs: true })).with.some((s) => /turns a knob/.test(s))).toBe(true);
});
