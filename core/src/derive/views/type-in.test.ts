import { after } from '../../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { changeDevice, rebuildDevice } from '../../edits/devices.js';
import { replaceDevice } from '../../edits/replace.js';
import { setDisplay, setWant } from '../../edits/sounds.js';
import { tick, tickId, tickOf, untick, type ProgramPlace } from '../../edits/ticks.js';
import { renamedIn, type Renaming } from '../../rig/renaming.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { typeIn, type TypeSlot } from './type-in.js';

const demo = islandRun();
const boxes = (rig: Rig) => typeIn(deriveOnce(rig, BALLROOM_ID)!);
const slot = (rig: Rig, code: string, shown: string): TypeSlot =>
  boxes(rig)
    .find((b) => b.code === code)!
    .slots.find((s) => s.shown === shown)!;
const texts = (s: TypeSlot) => s.lines.map((l) => l.text);
const HOW = { by: 'Tech', revision: 1, when: '2030-01-01T10:00:00.000Z' };
const place = { device: 'device:swi', memory: 'slots', number: 0 } as const;

describe('what to type into each box', () => {
  test('the controller first, then every box with programs', () => {
    expect(boxes(demo).map((b) => [b.isController ? 'calls' : 'is called', b.code, b.counts, b.channel])).toEqual([
      ['calls', 'SWI', 'banks of 4, 1A to 32D', ''],
      ['is called', 'MOD', 'shows 1–128', 'MIDI channel 2'],
      ['is called', 'DLY', 'shows 0–127', 'MIDI channel 3'],
      ['is called', 'REV', 'banks of 3, 1.1 to 43.2', 'MIDI channel 4'],
    ]);
  });
  test('a slot: name as the display shows it, loops, messages with wire number and shown number, and why', () => {
    expect(texts(slot(demo, 'SWI', '1A'))).toEqual([
      'name “Verse clean”',
      'loops on 1 6 8, the others off',
      'channel 3, program 0 on the wire, DLY shows 0',
      'channel 4, program 3 on the wire, REV shows 2.1',
      'switch E, while held: on: loop 4 on; trim 4 dB; off: loop 4 off; trim 0 dB',
    ]);
    expect(slot(demo, 'SWI', '1A').lines[2]).toMatchObject({ bytes: 'C2 00', why: 'Stereo delay: program 0' });
    expect(texts(slot(demo, 'SWI', '1B'))[0]).toBe('name “Chorus crunc”');
  });
  test('a name that is too long for the display is shortened by the person, else cut', () => {
    const shortened = after(demo, setDisplay(partOf(demo, 'sound:02')!, 'Ch. crunch'));
    expect(texts(slot(shortened, 'SWI', '1B'))[0]).toBe('name “Ch. crunch”');
    const back = after(shortened, setDisplay(partOf(shortened, 'sound:02')!, undefined));
    expect(partOf(back, 'sound:02')).toEqual(partOf(demo, 'sound:02'));
  });
  test('loops whose positions have other names are not told to be off', () => {
    const swi = partOf(demo, 'device:swi')!;
    const change: Renaming = { of: 'value', control: 'loop1', from: 'on', to: 'engaged' };
    const renamed = after(demo, rebuildDevice(demo, renamedIn(swi, change), [change]));
    expect(texts(slot(renamed, 'SWI', '1A'))).toEqual(
      expect.arrayContaining(['loops on 6 8, the others off', 'loop 1 engaged']),
    );
  });
  test('a program of an effect: what it holds where that is written down; otherwise that it must be there', () => {
    expect(slot(demo, 'DLY', '4')).toMatchObject({ name: 'Slap', unknown: false });
    expect(texts(slot(demo, 'DLY', '4'))).toContain('on/off on');
  });
});

describe('ticking off', () => {
  const { lines } = slot(demo, 'SWI', '1A');
  const ticked = after(demo, tick(demo, place, lines, lines, HOW));
  test('a slot that is typed in has nothing open, and says who typed it', () => {
    expect(slot(ticked, 'SWI', '1A').lines.every((l) => l.ticked?.by === 'Tech')).toBe(true);
    const [before, now] = [demo, ticked].map((r) => boxes(r)[0]!);
    expect(before!.open - now!.open).toBe(lines.length);
  });
  test('one sound changed: only what differs is open again, with what stood there', () => {
    const changed = after(ticked, setWant(partOf(ticked, 'sound:01')!, { control: 'device:rev.program', is: 7 }));
    const now = slot(changed, 'SWI', '1A');
    expect(now.lines.filter((l) => !l.ticked).map((l) => l.text)).toEqual([
      'channel 4, program 7 on the wire, REV shows 3.2',
      'after 60 ms: channel 4, controller 102 = 127',
    ]);
    expect(now.gone).toEqual(['channel 4, program 3 on the wire, REV shows 2.1']);
    const done = after(
      changed,
      tick(
        changed,
        place,
        now.lines.filter((l) => !l.ticked),
        now.lines,
        HOW,
      ),
    );
    expect(slot(done, 'SWI', '1A')).toMatchObject({ gone: [] });
    expect(slot(done, 'SWI', '1A').lines.every((l) => l.ticked)).toBe(true);
  });
  test('another box that shows other numbers, or has another name, changes nothing in the switcher', () => {
    const dly = partOf(ticked, 'device:dly')!;
    const memories = dly.memories.map((m) => ({ ...m, shows: { first: 1 as const } }));
    const changed = after(ticked, changeDevice(dly, { code: 'ECH', memories }));
    const now = slot(changed, 'SWI', '1A');
    expect(now.lines[2]!.text).toBe('channel 3, program 0 on the wire, ECH shows 1');
    expect(now.lines.every((l) => l.ticked)).toBe(true);
    expect(now.gone).toEqual([]);
  });
  test('a position that is called otherwise stays ticked: the box holds the same', () => {
    const at: ProgramPlace = { device: 'device:dly', memory: partOf(demo, 'device:dly')!.memories[0]!.id, number: 4 };
    const held = slot(demo, 'DLY', '4').lines;
    const known = after(demo, tick(demo, at, held, held, HOW));
    const change: Renaming = { of: 'value', control: 'on', from: 'on', to: 'engaged' };
    const box = partOf(known, 'device:dly')!;
    const renamed = after(known, rebuildDevice(known, renamedIn(box, change), [change]));
    const now = slot(renamed, 'DLY', '4');
    expect(texts(now)).toContain('on/off engaged');
    expect(now.lines.every((l) => l.ticked)).toBe(true);
    expect(now.gone).toEqual([]);
  });
  test('what an older rig ticked off by its words alone still counts', () => {
    const old = Object.fromEntries(lines.map(({ text }) => [text, HOW]));
    const read = after(demo, { put: [{ kind: 'tick', id: tickId(place), ...place, lines: old }], remove: [] });
    expect(slot(read, 'SWI', '1A').lines.every((l) => l.ticked)).toBe(true);
  });
  test('another box in its place has nothing typed into it', () => {
    const swapped = after(ticked, replaceDevice(ticked, 'device:swi', 'switcher-8')!.edit);
    expect(slot(swapped, 'SWI', '1A').lines.some((l) => l.ticked)).toBe(false);
    expect(tickOf(swapped, place)).toBeUndefined();
  });
  test('taken back, one line or the last of them', () => {
    const one = after(ticked, untick(ticked, place, lines[0]!));
    expect(slot(one, 'SWI', '1A').lines.map((l) => l.ticked !== undefined)).toEqual([false, true, true, true, true]);
    const single = after(demo, tick(demo, place, [lines[0]!], lines, HOW));
    expect(tickOf(after(single, untick(single, place, lines[0]!)), place)).toBeUndefined();
    expect(untick(demo, place, { text: 'x', is: 'x' })).toEqual({ put: [], remove: [] });
  });
});
