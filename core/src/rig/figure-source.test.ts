import fc from 'fast-check';
import { CATALOGUE } from '../catalogue/boxes.js';
import { figuresOf, withFigure } from '../catalogue/figures.js';
import { makeDevice } from '../catalogue/make.js';
import { isMeasured } from '../electric/typical.js';
import { stageGain } from '../electric/levels/stage-gain.js';
import { blocksIn } from './domain.js';
import type { Device } from './device.js';
import { FIGURE_ORIGINS, sourceOf, sourceText, withSource, type FigureSource } from './figure-source.js';
import { emptyRig } from './rig.js';
import { renamedIn } from './renaming.js';

const drive = makeDevice('low-drive', 'device:low');
const stage = blocksIn(drive.chains.flatMap((c) => c.slots))[0]!;
const GAIN = `${stage.id}.gain`;
const source = fc.record(
  {
    from: fc.constantFrom(...FIGURE_ORIGINS),
    on: fc.constant('2026-05-31'),
    with: fc.constantFrom('a clamp meter', 'an interface at 48 kHz'),
  },
  { requiredKeys: ['from'] },
);
const written = (device: Device, of: string, text: string): Device => {
  const done = withFigure(device, figuresOf(device).find((f) => f.source === of)!.key, text);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return done.value;
};

test('a note counts for its figure alone; without one a figure comes from where all of the box do', () => {
  fc.assert(
    fc.property(source, fc.constantFrom(...FIGURE_ORIGINS), (noted: FigureSource, origin) => {
      const box: Device = { ...drive, figures: { ...drive.figures, origin } };
      const device = withSource(box, GAIN, noted);
      expect(sourceOf(device, GAIN)).toEqual(noted);
      expect(sourceOf(device, 'jack in.ohm')).toEqual({ from: origin });
      expect(withSource(device, GAIN, undefined)).toEqual(box);
    }),
  );
});

test('every figure that can be measured can say its source, no two of a box the same; taking it away takes the note away', () => {
  for (const { key } of CATALOGUE) {
    const all = figuresOf(makeDevice(key, 'device:one')).flatMap((f) => (f.source ? [f.source] : []));
    expect([key, all.filter((note, i) => all.indexOf(note) !== i)]).toEqual([key, []]);
  }
  const notes = figuresOf(drive).flatMap((f) => (f.source ? [f.source] : []));
  expect(notes).toEqual(
    expect.arrayContaining([GAIN, `${stage.id}.noiseDbu`, 'jack in.ohm', 'jack in.maxDbu', 'box.battery']),
  );
  const noted = withSource(written(drive, GAIN, '18 dB'), GAIN, { from: 'maker' });
  expect(written(noted, GAIN, '').figures.sources).toBeUndefined();
  expect(figuresOf(drive).find((f) => f.what === 'polarity')?.source).toBeUndefined();
});

test('a stage or jack that is called otherwise keeps its notes', () => {
  const noted = withSource(withSource(drive, GAIN, { from: 'ear' }), 'jack in.ohm', { from: 'maker' });
  const renamed = renamedIn(renamedIn(noted, { of: 'stage', from: stage.id, to: 'crunch' }), {
    of: 'jack',
    from: 'in',
    to: 'input',
  });
  expect(sourceOf(renamed, 'crunch.gain').from).toBe('ear');
  expect(sourceOf(renamed, 'jack input.ohm').from).toBe('maker');
});

test('a measured gain of a drive counts with its level; one that is not measured leaves the level to the knob', () => {
  const block = { ...stage, gain: 12 };
  const rig = emptyRig();
  const measured = withSource(drive, GAIN, { from: 'measured', on: '2026-05-31', with: 'an interface' });
  expect([isMeasured(measured, GAIN), isMeasured(drive, GAIN)]).toEqual([true, false]);
  expect(stageGain(rig, measured, block, new Map()).out(-40)).toBeCloseTo(-28, 0);
  expect(stageGain(rig, drive, block, new Map()).out(-20)).toBeCloseTo(-20, 1);
});

test('in words', () => {
  expect(sourceText({ from: 'measured', on: '2026-05-31', with: 'a clamp meter' })).toBe(
    'measured on 2026-05-31 with a clamp meter',
  );
  expect(sourceText({ from: 'maker' })).toBe('maker’s figure');
});
