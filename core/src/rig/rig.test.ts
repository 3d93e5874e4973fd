import fc from 'fast-check';
import { makeDevice } from '../catalogue/make.js';
import { islandRun } from '../demo/island-run.js';
import { byteFor, scaledValue } from './act.js';
import type { Control } from './device.js';
import { isId, kindOf, ref, splitRef } from './ids.js';
import { domainText, inDomain } from './domain.js';
import { refersTo } from './references.js';
import { channelOf, controllerActuators, listensTo, valueFrom } from './midi-manners.js';
import { sayRefusal } from './result.js';
import {
  all,
  emptyRig,
  everyPart,
  newRig,
  partOf,
  programsOf,
  rigName,
  rigOf,
  soundsInOrder,
  type Part,
} from './rig.js';
import { holds, type Circumstances } from './value.js';

const now = (values: Readonly<Record<string, string | number>>, plugs: readonly string[] = []): Circumstances => ({
  value: (c) => values[c],
  plugged: (j) => plugs.includes(j),
});

describe('facts', () => {
  test.each([
    ['one of several values', { control: 'on', in: ['on', 'auto'] }, now({ on: 'auto' }), true],
    ['none of them', { control: 'on', in: ['on'] }, now({ on: 'off' }), false],
    ['numbers and texts that read alike', { control: 'slot', in: ['3'] }, now({ slot: 3 }), true],
    ['a range, its ends included', { control: 'mix', from: 10, to: 20 }, now({ mix: 20 }), true],
    ['beyond the range', { control: 'mix', from: 10, to: 20 }, now({ mix: 21 }), false],
    ['a control without a value', { control: 'gone', in: ['on'] }, now({}), false],
    ['a plug that is in', { jack: 'return', plugged: true }, now({}, ['return']), true],
    ['a plug that is out', { jack: 'return', plugged: false }, now({}, ['return']), false],
  ])('%s', (_, fact, circumstances, is) => expect(holds([fact], circumstances)).toBe(is));
  test('all must hold; none at all always does', () => {
    expect(
      holds(
        [
          { control: 'a', in: [1] },
          { control: 'b', in: [2] },
        ],
        now({ a: 1, b: 3 }),
      ),
    ).toBe(false);
    expect([holds([], now({})), holds(undefined, now({}))]).toEqual([true, true]);
  });
});

describe('ids and refs', () => {
  test.each([
    ['device:dly', true],
    ['device:', false],
    ['Device:dly', false],
    ['thing:dly', false],
    ['device:Dly', false],
    ['device:a b', false],
    [`device:${'x'.repeat(65)}`, false],
    ['sound:1', true],
  ])('%s', (text, is) => expect(isId(text)).toBe(is));
  test('a ref is a device and a name; the name may hold anything', () =>
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z0-9]{1,10}$/), fc.string({ minLength: 1, maxLength: 20 }), (id, name) => {
        expect(splitRef(ref(`device:${id}`, name))).toEqual({ device: `device:${id}`, name });
        expect(kindOf(`device:${id}`)).toBe('device');
      }),
    ));
});

describe('domains', () => {
  const control = (domain: Control['domain']): Control => ({ id: 'c', domain, powerUp: 'left', use: 'sound' });
  const order = control({ arrange: ['a', 'b', 'c'], branches: 1 });
  test.each<[string, Control, string | number, boolean]>([
    ['a value of the list', control({ values: ['off', 'on'] }), 'on', true],
    ['another', control({ values: ['off', 'on'] }), 'maybe', false],
    ['a number within', control({ min: -6, max: 6, unit: 'dB' }), -6, true],
    ['a number beyond', control({ min: -6, max: 6, unit: 'dB' }), 7, false],
    ['a text where a number belongs', control({ min: 0, max: 9, unit: '' }), '5', false],
    ['an arrangement', order, 'c ( a | b )', true],
    ['a part of one', order, 'b', true],
    ['a slot twice', order, 'a a', false],
    ['a slot that is not there', order, 'a d', false],
  ])('%s', (_, c, value, is) => expect(inDomain(c, value)).toBe(is));
  test('in words', () =>
    expect([
      domainText(control({ min: 0, max: 100, unit: '%' })),
      domainText(control({ values: [1, 2] })),
      domainText(order),
    ]).toEqual(['0 to 100 %', '1, 2', 'an arrangement of a b c']));
});

describe('a rig', () => {
  const rig = islandRun();
  test('every part is found by its id, and refers only to parts that are there', () => {
    for (const part of everyPart(rig)) {
      expect(partOf(rig, part.id) as Part).toBe(part);
      for (const id of refersTo(part)) expect(partOf(rig, id)).toBeDefined();
    }
  });
  test('boxes keep the order of the kit, sounds that of the sheet', () => {
    const shuffled = rigOf([...everyPart(rig)].reverse());
    expect(all(shuffled, 'device').map((d) => d.code)).toEqual(all(rig, 'device').map((d) => d.code));
    expect(
      soundsInOrder(shuffled)
        .map((s) => s.name)
        .slice(0, 3),
    ).toEqual(['Verse clean', 'Chorus crunch', 'Chorus wide']);
  });
  test('a new one has a name and a hook-up; an empty one only a name', () => {
    expect([
      rigName(newRig('Mine')),
      all(newRig('Mine'), 'hookup').map((h) => h.name),
      everyPart(emptyRig()).length,
    ]).toEqual(['Mine', ['Main'], 1]);
  });
  test('programs come by number, in whatever order they were put in', () => {
    const turned = rigOf([...everyPart(rig)].reverse());
    expect(programsOf(turned, 'device:dly').map((p) => p.number)).toEqual([0, 4, 6, 11]);
    expect(programsOf(turned, 'device:dly')).toEqual(programsOf(rig, 'device:dly'));
  });
  test('programs are found by box and memory', () =>
    expect([programsOf(rig, 'device:rev').length, programsOf(rig, 'device:rev', 'none').length]).toEqual([3, 0]));
  test('a refusal is one line: where, what, what would do', () =>
    expect(
      sayRefusal({ code: 'x', part: 'sound:1', where: 'name', wrong: 'It is empty.', would: 'Give it one.' }),
    ).toBe('sound:1 name: It is empty. Give it one.'));
});

describe('how boxes take messages', () => {
  const delay = makeDevice('stereo-delay', 'device:d', { channel: 7 });
  test('on their channel, or on all', () => {
    expect([
      listensTo(delay, 7, () => undefined),
      listensTo(delay, 8, () => undefined),
      listensTo({ ...delay, midi: { ...delay.midi!, omni: true } }, 8, () => undefined),
    ]).toEqual([true, false, true]);
    expect(listensTo(makeDevice('boost', 'device:b'), 1, () => undefined)).toBe(false);
  });
  test('a channel may be a setting of the hook-up; one beyond 16 is none', () => {
    const set = { ...delay, midi: { channel: 'channel', messages: 'lost' as const } };
    expect([channelOf(set, () => 5), channelOf(set, () => 40), channelOf(set, () => undefined)]).toEqual([
      5,
      undefined,
      undefined,
    ]);
  });
  test('a controller value falls into a range or is scaled', () => {
    const [onOff] = controllerActuators(delay, 102);
    expect([0, 63, 64, 127].map((v) => valueFrom(onOff!.acts[0]!, v, undefined))).toEqual(['off', 'off', 'on', 'on']);
    expect(
      valueFrom(
        controllerActuators(delay, 20)[0]!.acts[0]!,
        127,
        delay.controls.find((c) => c.id === 'mix'),
      ),
    ).toBe(100);
  });
  test('scaling is monotone, keeps to its ends, and the nearest byte is at most half a step of the wire away', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: 0, max: 127 }),
        (low, width, byte) => {
          const range = [low, low + width] as const;
          expect([scaledValue(0, range, 1), scaledValue(127, range, 1)]).toEqual([low, low + width]);
          if (byte > 0) expect(scaledValue(byte, range, 1)).toBeGreaterThanOrEqual(scaledValue(byte - 1, range, 1));
          const value = scaledValue(byte, range, 1);
          expect(Math.abs(low + (width * byteFor(value, range)) / 127 - value)).toBeLessThanOrEqual(width / 254 + 1e-9);
        },
      ),
    ));
});
