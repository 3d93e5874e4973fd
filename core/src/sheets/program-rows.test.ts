import { after } from '../../testing/after.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { replaceDevice } from '../edits/replace.js';
import { callersIn, callFrom, placesOf } from '../edits/calls.js';
import { giveSlots } from '../edits/sounds.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { typeIn } from '../derive/views/type-in.js';
import { partOf, programsOf, type Rig } from '../rig/rig.js';
import type { Result } from '../rig/result.js';
import { programRows } from './program-rows.js';
import { addProgram, forgetProgram, programCell, programColumns, typePrograms } from './program-sheet.js';

const done = <T>(result: Result<T, unknown>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const bare = after(
  smallRig({
    boxes: { g: 'single-coil', m: 'modeller-two-loops', d: 'desk' },
    leads: ['g.out>m.in', 'm.out-l>d.ch1', 'm.out-r>d.ch2'],
    sounds: { Clean: ['m.amp-a', 'm.cab-a'], Lead: ['m.amp-b', 'm.cab-a', 'm.delay'] },
  }),
  { put: [], remove: [] },
);
const slotted = after(bare, giveSlots(bare));
const modeller = partOf(slotted, 'device:m')!;
const memory = modeller.memories[0]!;
const columns = programColumns(modeller, memory);
const rowsOf = (rig: Rig) =>
  programRows(rig, modeller, memory, typeIn(deriveOnce(rig, SMALL)!).find((b) => b.device === 'device:m')?.slots ?? []);
const inScene = (rig: Rig, name: string, place: string): Rig => {
  const scenes = callersIn(rig).find((c) => c.isScene)!;
  const sound = [...rig.parts.sound.values()].find((s) => s.name === name)!;
  return after(rig, callFrom(rig, sound, scenes, placesOf(rig, scenes).find((p) => p.text === place)!.slot));
};
const scenes = ['Clean', 'Lead'].reduce((r, name, i) => inScene(r, name, `1A scene ${i + 1}`), slotted);

describe('programs and their scenes as they stand in a box', () => {
  test('each scene stands behind its program, planned as long as nobody wrote it down', () => {
    expect(rowsOf(scenes).map((r) => [r.shown, r.is, r.calledBy])).toEqual([
      ['1A', 'planned', 2],
      ['1A scene 1', 'planned', 1],
      ['1A scene 2', 'planned', 1],
    ]);
  });
  test('a scene is added by what the box shows, typed into, and forgotten again', () => {
    const added = after(scenes, done(addProgram(scenes, modeller, memory, '2b Scene 4', '')));
    const row = rowsOf(added).find((r) => r.shown === '2B scene 4')!;
    expect(row).toMatchObject({ is: 'unknown', isScene: true, program: { memory: 'scenes', number: 3, of: 5 } });
    const column = columns.findIndex((c) => c.id === 'delay');
    const typed = after(added, done(typePrograms(added, [row.program], columns, [{ row: 0, column, text: 'on' }])));
    const written = rowsOf(typed).find((r) => r.shown === '2B scene 4')!;
    expect([written.is, programCell(written.program, columns[column]!).text]).toEqual(['written', '●']);
    const gone = after(typed, forgetProgram(typed, written.program));
    expect(rowsOf(gone).map((r) => r.shown)).toEqual(rowsOf(scenes).map((r) => r.shown));
  });
  test('what only the program stores is said to stand there', () => {
    const scene = rowsOf(scenes).find((r) => r.isScene)!;
    const column = columns.findIndex((c) => c.id === 'delay-time');
    expect(typePrograms(scenes, [scene.program], columns, [{ row: 0, column, text: '400' }])).toMatchObject({
      ok: false,
      error: [{ wrong: expect.stringContaining('its program does') as string }],
    });
  });
  test.each(['9Z scene 2', '1A scene 9', '1A scene', 'scene 2'])('%s is no place of it', (display) => {
    expect(addProgram(scenes, modeller, memory, display, '')).toMatchObject({
      ok: false,
      error: { would: expect.stringContaining('1A scene 4') as string },
    });
  });
  test('the same place twice is refused; the scene of another program is not', () => {
    const added = after(scenes, done(addProgram(scenes, modeller, memory, '3A scene 2', '')));
    expect(addProgram(added, modeller, memory, '3A scene 2', '').ok).toBe(false);
    expect(addProgram(added, modeller, memory, '3B scene 2', '').ok).toBe(true);
    expect(addProgram(added, modeller, memory, '3A', '').ok).toBe(true);
  });
});

describe('a modeller with scenes is swapped', () => {
  const added = after(scenes, done(addProgram(scenes, modeller, memory, '1A scene 2', 'Big')));
  const row = rowsOf(added).find((r) => r.program.name === 'Big')!;
  const column = columns.findIndex((c) => c.id === 'delay');
  const written = after(added, done(typePrograms(added, [row.program], columns, [{ row: 0, column, text: 'on' }])));
  test('for another with scenes: each goes over, with the sounds in it', () => {
    const { edit } = replaceDevice(written, 'device:m', 'modeller-rack')!;
    const there = partOf(after(written, edit), 'device:m')!;
    const hasScenes = there.memories.some((m) => m.inside);
    expect(programsOf(after(written, edit), 'device:m').map((p) => [p.memory, p.of, p.number])).toEqual(
      hasScenes ? [['scenes', 0, 1]] : [],
    );
  });
  test('for one without: no scene becomes a program, and what is lost is said', () => {
    const { edit, lost } = replaceDevice(written, 'device:m', 'modeller')!;
    expect(partOf(after(written, edit), 'device:m')!.memories.some((m) => m.inside)).toBe(false);
    expect(programsOf(after(written, edit), 'device:m')).toEqual([]);
    expect(lost).toEqual(expect.arrayContaining(['program “Big”', 'amp-b, its slot in “Lead”']));
  });
});
