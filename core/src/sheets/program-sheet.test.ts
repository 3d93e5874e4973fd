import { apply } from '../change/apply.js';
import type { Edit } from '../change/edit.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { typeIn } from '../derive/views/type-in.js';
import type { Id } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import type { Result } from '../rig/result.js';
import { partOf, programAt, programsOf, type Rig } from '../rig/rig.js';
import {
  addProgram,
  forgetProgram,
  programCell,
  programColumns,
  putPrograms,
  typeIntoProgram,
  typePrograms,
} from './program-sheet.js';

const rig = islandRun();
const after = (before: Rig, edit: Edit): Rig => {
  const applied = apply(before, edit);
  if (!applied.ok) throw new Error(JSON.stringify(applied.error));
  return applied.value.rig;
};
const done = <T>(result: Result<T, unknown>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const box = (code: string, of = rig) => {
  const device = [...of.parts.device.values()].find((d) => d.code === code)!;
  const memory = device.memories[0]!;
  const columns = programColumns(device, memory);
  return { device, memory, columns, at: (says: string) => columns.findIndex((c) => c.says.endsWith(`: ${says}`)) };
};
const slotsOf = (of: Rig, device: Id<'device'>): readonly Program[] =>
  typeIn(deriveOnce(of, BALLROOM_ID)!)
    .find((b) => b.device === device)!
    .slots.flatMap((s) => s.program ?? []);

describe('programs of a box', () => {
  const { device, memory, columns, at } = box('DLY');
  const [first, second] = programsOf(rig, device.id, memory.id) as [Program, Program];

  test('a number, a switch and a value are typed as they stand on the box; what is emptied is not known any more', () => {
    const typed = done(
      typePrograms(rig, [first, second], columns, [
        { row: 0, column: at('mix'), text: '38' },
        { row: 1, column: columns.findIndex((c) => c.is === 'switch'), text: '-' },
      ]),
    );
    const later = after(rig, typed);
    expect(programAt(later, device.id, memory.id, first.number)!.contents).toMatchObject({ mix: 38 });
    const off = programAt(later, device.id, memory.id, second.number)!;
    expect(
      programCell(
        off,
        columns.find((c) => c.is === 'switch')!,
      ).text,
    ).toBe('·');
    const emptied = columns
      .filter((c) => c.is !== 'sends')
      .reduce((p, c) => done(typeIntoProgram(later, p, c, '')), off);
    expect(emptied.contents).toBe('unplanned');
  });
  test('what every cell shows can be typed again and says the same', () => {
    for (const code of ['SWI', 'DLY', 'REV', 'MOD']) {
      const one = box(code);
      for (const program of slotsOf(rig, one.device.id)) {
        for (const column of one.columns) {
          const { text } = programCell(program, column);
          if (text === '') continue;
          const again = done(typeIntoProgram(rig, program, column, text));
          expect({ code, column: column.id, contents: again.contents, acts: again.acts }).toEqual({
            code,
            column: column.id,
            contents: program.contents,
            acts: program.acts,
          });
        }
      }
    }
  });
  test('a value outside, a number that the box does not show and one that is taken are refused, and all is as before', () => {
    const wrong = typePrograms(rig, [first, second], columns, [
      { row: 0, column: at('mix'), text: '40' },
      { row: 1, column: at('mix'), text: '400' },
    ]);
    expect(wrong).toMatchObject({
      ok: false,
      error: [{ where: `${second.name}, DLY mix %`, would: expect.stringContaining('0 to 100') }],
    });
    expect(addProgram(rig, device, memory, '900', 'Far')).toMatchObject({
      ok: false,
      error: { wrong: expect.stringContaining('900') },
    });
    expect(addProgram(rig, device, memory, String(first.number + memory.shows.first), 'Twice')).toMatchObject({
      ok: false,
      error: { would: 'Type into its row.' },
    });
  });
  test('a program nobody wrote down holds what is not known; written down its sound is proved with it, and a plan keeps its hands off', () => {
    const number = Array.from({ length: memory.size }, (_, n) => n).find(
      (n) => !programAt(rig, device.id, memory.id, n),
    )!;
    const added = after(rig, done(addProgram(rig, device, memory, String(number + memory.shows.first), 'Long hall')));
    const program = programAt(added, device.id, memory.id, number)!;
    expect([program.name, program.contents]).toEqual(['Long hall', 'unplanned']);
    const written = after(
      added,
      done(typePrograms(added, [{ ...program, planned: true }], columns, [{ row: 0, column: at('mix'), text: '55' }])),
    );
    const standing = programAt(written, device.id, memory.id, number)!;
    expect([standing.id, standing.planned, standing.contents]).toEqual([program.id, undefined, { mix: 55 }]);
    expect(programAt(after(written, forgetProgram(written, standing)), device.id, memory.id, number)).toBeUndefined();
  });
});

describe('slots of a controller', () => {
  const { device, memory, columns } = box('SWI');
  const sends = columns.find((c) => c.is === 'sends')!;
  const planned = slotsOf(rig, device.id).find((p) => p.acts.length > 0 && !partOf(rig, p.id))!;

  test('a planned slot that was dialled in otherwise is written down as it stands; the proof says what that breaks; given back, it is planned as before', () => {
    const row = columns.findIndex((c) => c.is === 'switch' && programCell(planned, c).text === '●');
    const written = after(rig, done(typePrograms(rig, [planned], columns, [{ row: 0, column: row, text: 'off' }])));
    const standing = programAt(written, device.id, memory.id, planned.number)!;
    expect(standing.id).not.toBe(planned.id);
    expect(standing.acts).toEqual(planned.acts);
    const derived = deriveOnce(written, BALLROOM_ID)!;
    const stored = [...derived.compilation.sounds.values()]
      .flatMap((c) => c.stored)
      .find((s) => s.program.number === planned.number)!;
    expect([stored.typed, stored.program.contents]).toEqual([true, standing.contents]);
    const called = [...derived.compilation.sounds.values()].find((c) => c.stored.includes(stored))!.sound;
    const verdict = derived.verdicts.get(called)!;
    expect(verdict.is === 'broken' && verdict.wrong.map((w) => w.variable)).toContain(
      `${device.id}.${columns[row]!.id}`,
    );
    const back = after(written, forgetProgram(written, standing));
    expect(slotsOf(back, device.id)).toEqual(slotsOf(rig, device.id));
  });
  test.each([
    ['ch 3 pc 14', { send: { pc: 14, channel: 3 } }],
    ['ch 16 bank 1 pc 127', { send: { pc: 127, channel: 16, bank: 1 } }],
    ['wait 150 ch 1 cc 20=64', { send: { cc: 20, value: 64, channel: 1 }, afterMs: 150 }],
    ['tempo 92.5', { send: { bpm: 92.5 } }],
  ])('%s', (text, act) => {
    const typed = done(typeIntoProgram(rig, planned, sends, text));
    expect(typed.acts).toEqual([{ at: planned.acts.flatMap((a) => ('send' in a ? [a.at] : []))[0], ...act }]);
    expect(programCell(typed, sends).text).toBe(text);
  });
  test.each([
    ['ch 17 pc 1', 'channels are 1 to 16'],
    ['ch 3 pc 200', '0 to 127'],
    ['ch 3 cc 200=1', '0 to 127'],
    ['ch 3', 'says nothing that a slot can send'],
    ['ch 3 bank 1 cc 2=3', 'a bank goes with a program'],
    ['ch 3 pc 1 at nowhere', 'no MIDI output "nowhere"'],
    ['pulse nowhere', 'no contact "nowhere"'],
    ['set loop1 maybe', 'type off, on'],
  ])('%s is refused', (text, why) =>
    expect(typeIntoProgram(rig, planned, sends, text)).toMatchObject({
      ok: false,
      error: { wrong: expect.stringContaining(why) },
    }),
  );
  test('a slot always holds its loops; an order of loops is typed by their numbers', () => {
    expect(typeIntoProgram(rig, planned, columns[0]!, '')).toMatchObject({
      ok: false,
      error: { wrong: expect.stringContaining('always holds it') },
    });
    const order = columns.find((c) => c.is === 'value' && 'arrange' in c.control.domain)!;
    const usual = programCell(planned, order).text;
    expect(usual).toBe('usual');
    const turned = done(typeIntoProgram(rig, planned, order, '2 1 3 4 5 6 7 8'));
    expect([programCell(turned, order).text, (turned.contents as Record<string, unknown>)['order']]).toEqual([
      '2 1 3 4 5 6 7 8',
      'loop2 loop1 loop3 loop4 loop5 loop6 loop7 loop8',
    ]);
    expect(putPrograms(rig, [turned]).put[0]!.id).not.toBe(planned.id);
  });
});
