import { randomGear } from '../../testing/random-gear.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import type { Device } from '../rig/device.js';
import { all } from '../rig/rig.js';
import { CATALOGUE } from './boxes.js';
import { figuresOf, withFigure } from './figures.js';
import { makeDevice } from './make.js';

const BOXES: readonly Device[] = [
  ...CATALOGUE.map((g) => makeDevice(g.key, 'device:one')),
  ...DEMO_RIGS.flatMap(({ make }) => all(make(), 'device')),
  ...Array.from({ length: 40 }, (_, n) => randomGear(n + 1).rig).flatMap((rig) => all(rig, 'device')),
];
const written = (device: Device, key: string, text: string): Device => {
  const done = withFigure(device, key, text);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return done.value;
};
const textOf = (device: Device, key: string): string => figuresOf(device).find((f) => f.key === key)!.text;

test('what is read is what was said, for every figure of every box', () => {
  let read = 0;
  for (const box of BOXES) {
    for (const { key, text } of figuresOf(box)) {
      if (text === '') continue;
      read += 1;
      expect(written(box, key, text)).toEqual(box);
      const without = written(box, key, '');
      expect(textOf(without, key)).toBe('');
      expect(written(without, key, text)).toEqual(box);
    }
  }
  expect(read).toBeGreaterThan(300);
});

test('each figure is told from every other, and its example can be written', () => {
  // A figure is written alike at whatever jack or box it stands.
  const tried = new Set<string>();
  for (const box of BOXES.slice(0, CATALOGUE.length)) {
    const figures = figuresOf(box);
    expect(new Set(figures.map((f) => f.key)).size).toBe(figures.length);
    for (const { key, what, like } of figures) {
      if (tried.has(`${what} ${like}`)) continue;
      tried.add(`${what} ${like}`);
      for (const example of like.replace(' or a knob: ', ' or ').replace(' or a knob', '').split(' or '))
        expect(textOf(written(box, key, example), key)).not.toBe('');
    }
  }
});

const amp = makeDevice('valve-head', 'device:amp');

test('figures are written as a person writes them', () => {
  const key = (what: string, where: string) => figuresOf(amp).find((f) => f.what === what && f.where === where)!.key;
  const [jack] = amp.jacks;
  expect(written(amp, key('power taken from the mains', 'the box'), '120').figures.watts).toBe(120);
  expect(written(amp, key('battery', 'the box'), '500 mAh, 9 V').figures.battery).toEqual({ mAh: 500, volts: 9 });
  expect(
    written(amp, key('where its switches are, mm from the left and the back', 'the box'), 'A 30 40, B 90 40').figures
      .switches,
  ).toEqual([
    { id: 'A', x: 30, y: 40 },
    { id: 'B', x: 90, y: 40 },
  ]);
  expect(
    written(amp, key('supply', `jack ${jack!.id}`), '9/12 V, 100 mA, negative, isolated').jacks[0]!.supply,
  ).toEqual({ volts: [9, 12], milliamps: 100, centre: 'negative', isolated: true });
  expect(written(amp, key('shield', `jack ${jack!.id}`), 'lifted lift=on').jacks[0]!.shield).toEqual({
    liftedWhen: [{ control: 'lift', in: ['on'] }],
  });
});

test('whatever is written over a figure is read or refused in words, for every figure of every box', () => {
  let refused = 0;
  for (const box of BOXES.slice(0, CATALOGUE.length)) {
    for (const { key } of figuresOf(box)) {
      for (const text of ['a big one', '9 V', '/ V, 1 mA, negative', '0..', ', ,', '=', '-1']) {
        const done = withFigure(box, key, text);
        if (done.ok) continue;
        refused += 1;
        expect(done.error[0]?.would).toMatch(/^\S.+/);
      }
    }
  }
  expect(refused).toBeGreaterThan(300);
});

test('what cannot be read is refused with what would do, and nothing is changed', () => {
  const { key } = figuresOf(amp).find((f) => f.what === 'battery')!;
  const done = withFigure(amp, key, 'a big one');
  expect(done.ok ? '' : done.error[0]).toMatchObject({
    where: 'the box, battery',
    wrong: '"a big one" cannot be read.',
    would: 'Write 500 mAh, 9 V or 2000 mAh, 3 V, takes 300 mA.',
  });
  expect(withFigure(amp, 'jack gone: shield', 'chassis').ok).toBe(false);
});

test.each([
  ['0 ohm', 'impedance'],
  ['-5 ohm', 'impedance'],
  ['many', 'impedance'],
  ['-3 W', 'power it gives or stands'],
])('%s is refused as %s, with how it is written, and nothing changes', (text, what) => {
  const key = figuresOf(amp).find((f) => f.what === what)!.key;
  const done = withFigure(amp, key, text);
  expect(done.ok).toBe(false);
  if (!done.ok) expect(done.error[0]!.would).toMatch(/^Write \d+ (ohm|W)\.$/);
});

test.each([
  ['12 V AC, 200 mA', { volts: [12], milliamps: 200, centre: 'ac' }],
  ['9V DC 20mA centre negative', { volts: [9], milliamps: 20, centre: 'negative' }],
  [
    '300 mA, 9/18 V, positive, plug 3.5 mm, shared',
    { volts: [9, 18], milliamps: 300, centre: 'positive', plug: '3.5 mm', isolated: false },
  ],
  ['1.2 A, 9 V, center positive, isolated', { volts: [9], milliamps: 1200, centre: 'positive', isolated: true }],
])('a supply as it is printed beside the jack: %s', (text, said) => {
  const box = makeDevice('compressor', 'device:x');
  const jack = box.jacks.find((j) => j.kind === 'power')!;
  const figure = figuresOf(box).find((f) => f.what === 'supply' && f.where === `jack ${jack.id}`)!;
  const now = withFigure(box, figure.key, text);
  expect(now.ok && now.value.jacks.find((j) => j.id === jack.id)!.supply).toEqual(said);
});
test.each([
  '9 V, 100 mA',
  '9 V, negative',
  'negative',
  '0 V, 10 mA, negative',
  '9 V, 100 mA, negative, round',
  '9 V, 100 mA, negative, plug huge',
])('a supply that does not say enough is refused, for a wrong one can kill a box: %s', (text) => {
  const box = makeDevice('compressor', 'device:x');
  const figure = figuresOf(box).find(
    (f) => f.what === 'supply' && f.where === `jack ${box.jacks.find((j) => j.kind === 'power')!.id}`,
  )!;
  expect(withFigure(box, figure.key, text).ok).toBe(false);
});
