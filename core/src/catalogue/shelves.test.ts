import { rigOf } from '../rig/rig.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import type { Device, Jack } from '../rig/device.js';
import type { Ref } from '../rig/ids.js';
import { blockIds } from '../rig/domain.js';
import { wire } from '../signal/graph/wiring.js';
import { CATALOGUE, SHELVES } from './boxes.js';
import { understand } from './kit-line/kit-line.js';
import { makeDevice } from './make.js';

const hookup: Hookup = { kind: 'hookup', id: 'hookup:h', name: 'h', settings: {}, hears: [], assumes: [] };
const boxes = CATALOGUE.map((g) => [g.key, makeDevice(g.key, 'device:x')] as const);
type Way = 'in' | 'out';
const isKind = (jack: Jack, kind: string) => jack.kind === kind || (kind === 'audio' && jack.kind === 'air');
/** Poles of jacks of one kind that take in or give out. */
const has = (d: Device, kind: string, way: Way): readonly string[] =>
  d.jacks
    .filter((j) => isKind(j, kind))
    .flatMap((j) => [...(j.poles.tip === way ? [j.id] : []), ...(j.poles.ring === way ? [`${j.id}:ring`] : [])]);

/** The same box with a plug in every jack: nothing is behind them. */
const turned = (way: Way | undefined): { tip?: Way; ring?: Way } => (way ? { tip: way === 'in' ? 'out' : 'in' } : {});
const plugs = (d: Device): Device => ({
  ...d,
  id: 'device:plugs',
  chains: [],
  controls: [],
  actuators: [],
  memories: [],
  ends: [],
  jacks: d.jacks.map((j) => ({
    ...j,
    poles: { ...turned(j.poles.tip), ...(j.poles.ring ? { ring: turned(j.poles.ring).tip! } : {}) },
  })),
});

/**
 * Points that a signal can come to from others, whatever the controls say, with no plug in any jack or with one in
 * each.
 */
const reachable = (device: Device, layer: 'audio' | 'midi' | 'power', from: readonly string[]): ReadonlySet<string> => {
  const cables = device.jacks.map((j, i): Cable => ({
    kind: 'cable',
    id: `cable:${i}`,
    hookup: hookup.id,
    ends: [`device:x.${j.id}` as Ref, `device:plugs.${j.id}` as Ref],
  }));
  return new Set(
    [rigOf([device, hookup]), rigOf([device, plugs(device), hookup, ...cables])].flatMap((rig) => {
      const w = wire(rig, hookup, layer);
      const seen = new Set(from.flatMap((at) => w.at.get(`device:x.${at}`) ?? []));
      for (const point of seen) for (const e of w.out[point]!) seen.add(w.edges[e]!.to);
      return [...seen].map((p) => w.points[p]!.id.slice('device:x.'.length));
    }),
  );
};

test('there are at least a hundred and twenty boxes, on shelves without gaps', () => {
  expect(CATALOGUE.length).toBeGreaterThanOrEqual(120);
  for (const shelf of SHELVES) expect([shelf.name, shelf.boxes.length > 5]).toEqual([shelf.name, true]);
});

describe('what people say they have is understood as one box', () => {
  test.each([
    'ordinary pedal: overdrive',
    'dual drive',
    'two-channel drive',
    'eight-loop switcher',
    'stereo switcher',
    'switcher with insert',
    'two-channel head',
    'head with parallel loop',
    'modeller',
    'modeller with two loops',
    'preamp with cabinet simulation',
    'preamp with effects loop',
    'ab box',
    'frequency splitter',
    'passive volume pedal',
    'active volume pedal',
    'line-out box',
    'looper station',
    'desk',
    'jack panel',
    'multicore',
    'wireless',
    'guitar',
    'bass',
    'acoustic',
    'pickup percussion',
    'microphone',
    'cabinet',
    'wedge',
    'in-ears',
    'recorder',
    'expression pedal',
    'reversed expression pedal',
    'gate',
    'keyed gate',
    'four-jack gate',
    'octave',
    'pitch',
    'envelope filter',
    'fuzz',
    'boost',
    'eq',
    'impulse loader',
    'band generator',
    'drum machine',
    'tempo source',
    'mini program changer',
    'mini control changer',
    'relay box',
    'song-list tablet',
    'timeline',
    'buffered splitter',
    'transformer splitter',
    'line mixer',
    'isolator',
    'active di',
    'stereo di',
    'tuner',
    'rack tuner',
    'power amp',
    'power supply',
    'daisy chain',
    'bridging lead',
    'battery',
    'keyboard',
  ])('%s', (said) => {
    const [piece, ...more] = understand(said.replace(/^.*: /, '')).heard;
    expect(more).toEqual([]);
    expect(piece?.is === 'taken' || piece?.is === 'asked').toBe(true);
  });
});

describe('the inside of every box', () => {
  test.each(boxes)('%s: what goes in comes out somewhere, and every output is fed', (_, device) => {
    const ends = (device.ends ?? []).map((e) => e.at);
    const sources = (device.ends ?? []).filter((e) => e.is === 'source').map((e) => e.at);
    const [ins, outs] = [has(device, 'audio', 'in'), has(device, 'audio', 'out')];
    const keys = device.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'block' && s.key ? [s.key] : [])));
    for (const into of ins)
      expect([
        into,
        keys.includes(into) ||
          [...reachable(device, 'audio', [into])].some((p) => outs.includes(p) || ends.includes(p)),
      ]).toEqual([into, true]);
    const fed = reachable(device, 'audio', [...ins, ...sources]);
    expect(outs.filter((out) => !fed.has(out))).toEqual([]);
  });
  test.each(boxes.filter(([, d]) => has(d, 'midi', 'in').length > 0))(
    '%s: MIDI that comes in is answered or passed on',
    (_, device) => {
      const answers = device.actuators.some((a) => 'midi' in a.by);
      const passes = has(device, 'midi', 'in').every((j) =>
        [...reachable(device, 'midi', [j])].some((p) => has(device, 'midi', 'out').includes(p)),
      );
      expect(
        answers || passes || device.jacks.some((j) => j.kind === 'usb') || device.ends?.some((e) => e.is === 'source'),
      ).toBe(true);
      if (answers) expect(device.midi?.channel).toBeGreaterThan(0);
    },
  );
  test.each(boxes)('%s: every control can be changed or is set once, and names are short', (_, device) => {
    const acted = new Set(
      device.actuators.flatMap((a) => a.acts.flatMap((act) => ('control' in act ? [act.control] : []))),
    );
    const stored = new Set(
      device.memories.flatMap((m) => [
        m.control,
        ...m.stores,
        ...(m.assignable ?? []).flatMap((a) => [a.latch, a.held]),
      ]),
    );
    const lonely = device.controls
      .filter((c) => c.use === 'sound' && !acted.has(c.id) && !stored.has(c.id))
      .map((c) => c.id);
    expect(lonely).toEqual([]);
    for (const c of device.controls) if (c.use === 'setting') expect([c.id, c.powerUp]).toEqual([c.id, 'left']);
    expect(device.code).toMatch(/^[A-Z0-9]{2,4}$/);
    expect(device.name.length).toBeLessThanOrEqual(70);
  });
  test.each(boxes.filter(([, d]) => d.chains.some((c) => c.slots.length)))(
    '%s: stages have names that a sound can say',
    (_, device) => {
      for (const c of device.chains) for (const id of blockIds(c.slots)) expect(id).toMatch(/^[a-z][a-z0-9-]*$/);
    },
  );
  test.each(boxes.filter(([, d]) => has(d, 'power', 'in').length && d.zone !== 'supply'))(
    '%s: says what it draws from its supply',
    (_, device) => {
      for (const jack of device.jacks.filter((j) => j.kind === 'power' && j.poles.tip === 'in')) {
        expect(jack.supply!.milliamps).toBeGreaterThan(0);
        expect(jack.supply!.volts.length).toBeGreaterThan(0);
      }
    },
  );
});
