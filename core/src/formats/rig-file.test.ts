import Ajv from 'ajv/dist/2020.js';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomRig } from '../../testing/random-rig.js';
import { islandRun } from '../demo/island-run.js';
import { readRigFile, rigFileSchema, writeRigFile } from './rig-file.js';

const demo = writeRigFile(islandRun());
const broken = (
  change: (d: {
    devices: { jacks: Record<string, unknown>[]; name: string; code: unknown }[];
    sounds: { name: string; wants: unknown[] }[];
    [k: string]: unknown;
  }) => void,
): string => {
  const document = JSON.parse(demo);
  change(document);
  return JSON.stringify(document);
};
const why = (text: string) => {
  const read = readRigFile(text);
  return read.ok ? 'read' : `${read.error[0]!.where}: ${read.error[0]!.wrong} ${read.error[0]!.would}`;
};

describe('writing and reading a rig gives the same rig', () => {
  test('the demo', () => {
    const read = readRigFile(demo);
    expect(read.ok && writeRigFile(read.value)).toBe(demo);
  });
  test('random rigs', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const text = writeRigFile(randomRig(seed).rig);
      const read = readRigFile(text);
      if (!read.ok) throw new Error(JSON.stringify(read.error[0]));
      expect(writeRigFile(read.value)).toBe(text);
    }
  });
});

describe('the JSON Schema', () => {
  const schema = rigFileSchema();
  const validate = new Ajv({ strict: false }).compile(schema);
  test('in docs/ is the one that the types make', () => {
    expect(JSON.parse(readFileSync(join(__dirname, '../../../docs/rig-file.schema.json'), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(schema)),
    );
  });
  test('takes the demo and random rigs, by an independent validator', () => {
    expect(validate(JSON.parse(demo))).toBe(true);
    for (let seed = 1; seed <= 10; seed += 1)
      expect(validate(JSON.parse(writeRigFile(randomRig(seed).rig)))).toBe(true);
  });
  test('refuses what the reader refuses', () =>
    expect(
      validate(
        JSON.parse(
          broken((d) => {
            d.devices[0]!.jacks[0]!.kind = 'audo';
          }),
        ),
      ),
    ).toBe(false));
});

/** The acts of the first box that something sets off. */
const actsIn = (d: { devices: object[] }): object[] =>
  (d.devices as { actuators: { acts: object[] }[] }[]).find((box) => box.actuators.length)!.actuators[0]!.acts;

describe('a file that is no rig is refused with the path, what was found and what would fit', () => {
  test.each<[string, string, string]>([
    ['not JSON', '{ "yunta": ', 'This is not JSON'],
    ['another JSON', '[1, 2]', 'begins with "yunta": "rig"'],
    [
      'a newer format',
      broken((d) => {
        d.format = 99;
      }),
      '99 is not a format',
    ],
    [
      'a list that is none',
      broken((d) => {
        d.cables = {};
      }),
      'cables: A list belongs here',
    ],
    [
      'an unknown list',
      broken((d) => {
        d.extras = [];
      }),
      'extras: This is not part',
    ],
    [
      'a misspelt jack kind',
      broken((d) => {
        d.devices[3]!.jacks[0]!.kind = 'audo';
      }),
      'devices[3].jacks[0].kind: "audo" is not one of audio, midi',
    ],
    [
      'a number for a code',
      broken((d) => {
        d.devices[0]!.code = 7;
      }),
      'devices[0].code: 7 stands where a string belongs',
    ],
    [
      'a name of 10,000 characters',
      broken((d) => {
        d.sounds[0]!.name = 'x'.repeat(10_000);
      }),
      'over the limit of 120 characters',
    ],
    [
      'an empty name',
      broken((d) => {
        d.sounds[0]!.name = '';
      }),
      'There is no text. Type one.',
    ],
    [
      'a MIDI channel of 17',
      broken((d) => {
        (d.devices[13] as unknown as { midi: { channel: number } }).midi.channel = 17;
      }),
      'devices[13].midi.channel: 17 is over the limit of 16',
    ],
    [
      'a want of no kind',
      broken((d) => {
        d.sounds[0]!.wants[0] = { stage: 'device:cmp.compressor', is: 'maybe' };
      }),
      'sounds[0].wants[0].is: "maybe" is not one of in, out, any',
    ],
    [
      'a want of two kinds',
      broken((d) => {
        d.sounds[0]!.wants[0] = { control: 'device:dly.mix', is: 3, any: true };
      }),
      'sounds[0].wants[0]: It says several things at once: any, is. Let it say one of them.',
    ],
    [
      'a want that says nothing',
      broken((d) => {
        d.sounds[0]!.wants[0] = { control: 'device:dly.mix' };
      }),
      'sounds[0].wants[0]: It says control, and not what follows from it. Add is, or between, or any, or hand, or more, or note, or pedal and heel and toe.',
    ],
    [
      'an act of two kinds',
      broken((d) => {
        actsIn(d)[0] = { control: 'on', set: 'on', toggle: ['on', 'off'] };
      }),
      'acts[0]: It says several things at once: toggle, set. Let it say one of them.',
    ],
    [
      'an act of no kind',
      broken((d) => {
        actsIn(d)[0] = {};
      }),
      'acts[0]: It says nothing. Add control and set, or control and toggle',
    ],
    [
      'a want on a box that is not there',
      broken((d) => {
        d.sounds[0]!.wants[0] = { stage: 'device:ghost.x', is: 'in' };
      }),
      'device:ghost, which is not in the rig',
    ],
    [
      'a part twice',
      broken((d) => {
        d.sounds.push(d.sounds[0]!);
      }),
      '"sound:01" is there twice',
    ],
    [
      'a misspelt key',
      broken((d) => {
        (d.devices[0] as unknown as Record<string, unknown>).nmae = 'x';
      }),
      '"nmae" is not known here',
    ],
  ])('%s', (_, text, says) => expect(why(text)).toContain(says));

  test('emoji, right-to-left text and quotes in names are kept as they are', () => {
    const names = ['🎸🎸 loud', 'שלום עולם', 'say "now" \\ \u2028 end'];
    const text = broken((d) =>
      names.forEach((n, i) => {
        d.sounds[i]!.name = n;
      }),
    );
    const read = readRigFile(text);
    expect(read.ok && [...read.value.parts.sound.values()].slice(0, 3).map((s) => s.name)).toEqual(names);
  });
});
