import { hex } from '../../midi/bytes.js';
import { readCapture, readHexText, type Captured } from '../../formats/capture.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { apply } from '../../change/apply.js';
import type { Program } from '../../rig/program.js';
import { soundsInOrder } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { actBytes } from './view.js';
import { checkWire, sendingControllers } from './wire-check.js';

const d = deriveOnce(islandRun(), BALLROOM_ID)!;
const SWI = 'device:swi' as const;
/** What the controller should send, as a monitor prints it: a line a message, a second between stomps. */
const lines = (timed = true): string[] =>
  soundsInOrder(d.rig).flatMap((s, i) =>
    d.compilation.sounds
      .get(s.id)!
      .stored.flatMap((x) =>
        x.program.acts.flatMap((act, k) =>
          actBytes(act) ? [`${timed ? `${i}.${String(100 + k)} ` : ''}${actBytes(act)}`] : [],
        ),
      ),
  );
const capture = (text: string): readonly Captured[] => {
  const read = readHexText(text);
  if (!read.ok) throw new Error(read.error[0]!.wrong);
  return read.value.messages;
};
const check = (text: string) => checkWire(d, SWI, capture(text));
const at = (list: readonly string[], bytes: string) => list.findIndex((l) => l.endsWith(bytes));
const replaced = (from: string, to: string | undefined, list = lines()): string => {
  const i = at(list, from);
  if (i < 0) throw new Error(`no line ends with ${from}`);
  return [...list.slice(0, i), ...(to === undefined ? [] : [list[i]!.replace(from, to)]), ...list.slice(i + 1)].join(
    '\n',
  );
};

describe('a capture beside what should be sent', () => {
  test('as it should be: nothing differs, with and without times', () => {
    for (const timed of [true, false]) {
      const found = check(lines(timed).join('\n'));
      expect(found.differences).toEqual([]);
      expect([found.right, found.notHeard]).toEqual([lines().length, []]);
    }
  });
  test('the controller that sends is found', () =>
    expect(sendingControllers(d).map((c) => c.name)).toEqual(['Eight-loop switcher']));
  test.each([
    ['another number', 'C2 0B', 'C2 0C', /program 12, shown 12, went out; 11, shown 11, was meant\.$/],
    ['another channel', 'C2 0B', 'C4 0B', /program 11 went out on channel 5, channel 3 was meant\.$/],
    ['another value', 'B2 66 7F', 'B2 66 40', /controller 102 is 64, 127 was meant\.$/],
    ['something missing', 'C2 0B', undefined, /program 11 on channel 3 \(DLY shows 11\) is not sent\.$/],
    ['something more', 'C2 0B', 'C2 0B B5 14 05', /controller 20 = 5 on channel 6 goes out, and nothing should\.$/],
  ])('%s', (_, from, to, says) => {
    for (const timed of [true, false]) {
      const { differences } = check(replaced(from, to, lines(timed)));
      expect(differences.map((x) => x.text)).toEqual([expect.stringMatching(says)]);
      expect(differences[0]!.sounds).toHaveLength(1);
    }
  });
  test('two messages that changed places', () => {
    const list = lines();
    const i = at(list, 'C2 00');
    expect(
      check([...list.slice(0, i), list[i + 1]!, list[i]!, ...list.slice(i + 2)].join('\n')).differences.map(
        (x) => x.text,
      ),
    ).toEqual([expect.stringMatching(/comes in another order than it should\.$/)]);
  });
  test('everything one too low is said once, with the school of the box', () => {
    const low = lines()
      .map((l) => l.replace(/C1 (..)/, (_, n: string) => `C1 ${hex([Number.parseInt(n, 16) - 1])}`))
      .join('\n');
    const { differences } = check(low);
    expect(differences).toHaveLength(1);
    expect(differences[0]!.text).toMatch(
      /^Every program number for Stereo modulation is one too low on the wire: the box shows 1–128/,
    );
    expect(differences[0]!.sounds.length).toBeGreaterThan(2);
  });
  test('everything for one box on another channel is said once', () => {
    const { differences } = check(
      lines()
        .map((l) => l.replace(/C3 /, 'C8 ').replace(/B3 /, 'B8 '))
        .join('\n'),
    );
    expect(differences.map((x) => x.text)).toEqual([
      'Everything for Stereo reverb goes out on channel 9; channel 4 was meant.',
    ]);
  });
  test('some stomps only, in any order: the others are named, not complained about', () => {
    const list = lines().filter((l) => /^(7|2)\./.test(l));
    const turned = [
      ...list.filter((l) => l.startsWith('7.')).map((l) => l.replace('7.', '1.')),
      ...list.filter((l) => l.startsWith('2.')),
    ];
    const found = check(turned.join('\n'));
    expect(found.differences).toEqual([]);
    expect(found.notHeard).toHaveLength(14);
  });
  test('nothing at all', () => expect(checkWire(d, SWI, [])).toMatchObject({ differences: [], rows: [], right: 0 }));
  test('three planted faults are found, and no fourth', () => {
    const list = replaced('C2 0B', 'C2 0C').split('\n');
    const second = replaced('B2 66 7F', undefined, list).split('\n');
    const i = second.findIndex((l) => /C1 0B$/.test(l));
    second[i] = second[i]!.replace('C1 0B', 'C7 0B');
    expect(check(second.join('\n')).differences).toHaveLength(3);
  });
});

describe('captures that are none', () => {
  const refused = (bytes: Uint8Array | string) => {
    const read = readCapture(typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes);
    return read.ok ? 'read' : `${read.error[0]!.wrong} ${read.error[0]!.would}`;
  };
  test.each([
    ['prose', 'dear diary\nnothing happened', 'No MIDI message stands in this text.'],
    ['an empty file', '', 'No MIDI message stands in this text.'],
    [
      'a picture',
      Uint8Array.from({ length: 400 }, (_, i) => (i * 37) % 256),
      'This is neither a Standard MIDI File nor text.',
    ],
    [
      'a cut MIDI file',
      Uint8Array.from([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 1, 0, 96, 0x4d, 0x54]),
      'The MIDI file cannot be read',
    ],
  ])('%s', (_, bytes, says) => expect(refused(bytes)).toContain(says));
  test('bytes cut in the middle, other lines and system exclusive are told, and what is whole is read', () => {
    const read = readHexText('heard on port 1\n00:00:01.000  C2 06\n00:00:01.002  F0 41 10 F7\n00:00:01.004  B3 66');
    expect(read.ok && read.value).toMatchObject({
      messages: [{ status: 0xc, channel: 3, data: [6], ms: 0 }],
      notes: [
        '1 line has no bytes in hex and was left out, the first of them line 1.',
        '1 system exclusive message was passed over.',
        'The capture ends in the middle of a message.',
      ],
    });
  });
  test('a megabyte of system exclusive is passed over in a moment', () => {
    const read = readHexText(`F0 ${'7F '.repeat(1_000_000)}F7 C0 05`);
    expect(read.ok && read.value.messages).toMatchObject([{ status: 0xc, channel: 1, data: [5] }]);
  });
  test('running status and a clock in between', () =>
    expect(capture('C2 06 F8 07')).toMatchObject([{ data: [6] }, { data: [7] }]));
});

describe('written down as it came', () => {
  const written = (text: string) => {
    const applied = apply(d.rig, check(text).asItCame.edit);
    if (!applied.ok) throw new Error(JSON.stringify(applied.error));
    return deriveOnce(applied.value.rig, BALLROOM_ID)!;
  };

  test('nothing differs: nothing is to be written', () =>
    expect(check(lines().join('\n')).asItCame).toEqual({ slots: [], edit: { put: [], remove: [] } }));
  test.each([
    ['another number', 'C2 0B', 'C2 0C'],
    ['another channel', 'C2 0B', 'C4 0B'],
    ['something missing', 'C2 0B', undefined],
    ['something more', 'C2 0B', 'C2 0B B5 14 05'],
    ['a bank', 'C2 0B', 'B2 00 01 B2 20 03 C2 0B'],
  ])('%s: the same capture is right afterwards, and what else the slot does stays', (_, from, to) => {
    const text = replaced(from, to);
    const found = check(text);
    expect(found.asItCame.slots).toHaveLength(1);
    const later = written(text);
    const again = checkWire(later, SWI, capture(text));
    expect([again.differences, again.asItCame.slots]).toEqual([[], []]);
    const [put] = found.asItCame.edit.put as Program[];
    const before = [...d.compilation.sounds.values()]
      .flatMap((c) => c.stored)
      .find((s) => s.program.number === put!.number)!.program;
    expect([put!.contents, put!.assigns, put!.name]).toEqual([before.contents, before.assigns, before.name]);
  });
  test('a slot that calls another program: its sound is not proved any more', () => {
    const text = replaced('C2 0B', 'C2 0C');
    const [put] = check(text).asItCame.edit.put as Program[];
    const sound = [...d.compilation.sounds.values()].find((c) =>
      c.stored.some((s) => s.program.number === put!.number),
    )!.sound;
    expect([d.verdicts.get(sound)!.is, written(text).verdicts.get(sound)!.is]).toEqual(['proved', 'broken']);
  });
});
