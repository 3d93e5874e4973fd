import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { apply } from '../change/apply.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { dialDays, dialsCompared, dialsOf, standingIn, standsOn } from '../dials/dial-cards.js';
import { readDials, samePosition } from '../dials/knob-words.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { viewOf } from '../derive/views/view.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import type { DialCase } from '../rig/dial-card.js';
import type { Id } from '../rig/ids.js';
import { all, soundsInOrder, type Rig } from '../rig/rig.js';
import { removeSong } from '../sheets/song-sheet.js';
import { dialCardOf, setDials } from './dial-cards.js';
import { removeDevice } from './devices.js';
import { removeHookup } from './hookups.js';
import { addSound, removeSound } from './sounds.js';

const demo = islandRun();
const [clean, lead] = soundsInOrder(demo).map((s) => s.id) as [Id<'sound'>, Id<'sound'>];
const LOW = 'device:low';
const write = (rig: Rig, device: Id<'device'> | undefined, where: DialCase, line: string, day = '2026-05-01'): Rig =>
  after(rig, setDials(rig, device, where, readDials(line).stands, day));
const everywhere = () => true;
const movesOf = (rig: Rig, sound: Id<'sound'>): readonly string[] =>
  dialsOf(rig, BALLROOM_ID, everywhere)
    .moves.get(sound)!
    .map((m) => `${m.device ?? 'hands'} ${m.knob} ${m.at}`);

describe('a dial card', () => {
  const base = write(demo, LOW, {}, "gain 2 o'clock, tone noon");
  test('is kept in a rig file and comes back the same', () => {
    const read = readRigFile(writeRigFile(base));
    expect(read.ok && all(read.value, 'dialCard')).toEqual(all(base, 'dialCard'));
  });
  test('keeps what was written on other days, and says what stands elsewhere since', () => {
    const later = write(base, LOW, {}, "gain 3 o'clock, tone twelve o'clock, level 4", '2026-06-01');
    const card = dialCardOf(later, LOW)!;
    expect(standsOn(card, '2026-05-20')).toEqual({ gain: "2 o'clock", tone: 'noon' });
    expect(dialDays(later)).toEqual(['2026-06-01', '2026-05-01']);
    expect(dialsCompared(later, '2026-05-01', '2026-06-01').map((d) => [d.knob, d.then, d.now])).toEqual([
      ['gain', "2 o'clock", "3 o'clock"],
      ['level', undefined, '4'],
    ]);
  });
  test('written twice on a day is written over; emptied on that day it is gone', () => {
    const again = write(base, LOW, {}, 'gain 5');
    expect(dialCardOf(again, LOW)!.readings).toEqual({ '2026-05-01': { gain: '5' } });
    expect(dialCardOf(write(again, LOW, {}, ''), LOW)).toBeUndefined();
  });
  test('written alike changes nothing', () =>
    expect(setDials(base, LOW, {}, readDials("gain 2 o'clock, tone noon").stands, '2026-07-01')).toEqual({
      put: [],
      remove: [],
    }));
  test('what is said for a sound counts before what holds always', () => {
    const both = write(base, LOW, { sound: lead }, 'gain max');
    const said = (sound: Id<'sound'>) =>
      [...standingIn(both, { hookup: BALLROOM_ID, sound }).values()].map((s) => `${s.knob} ${s.at}`);
    expect(said(lead)).toEqual(['gain max', 'tone noon']);
    expect(said(clean)).toEqual(["gain 2 o'clock", 'tone noon']);
  });
  test('a derived sound has its parent’s hands until it says its own', () => {
    const child = after(base, addSound(base, 'sound:child', 'Child', 'lead', lead));
    const withParent = write(child, LOW, { sound: lead }, 'gain 9');
    const gain = (r: Rig) => standingIn(r, { hookup: BALLROOM_ID, sound: 'sound:child' }).get(`${LOW} gain`)!.at;
    expect(gain(withParent)).toBe('9');
    expect(gain(write(withParent, LOW, { sound: 'sound:child' }, 'gain 3'))).toBe('3');
  });
  test('two cards of one box for one case are refused', () => {
    const twice = apply(base, {
      put: [{ ...dialCardOf(base, LOW)!, id: 'dialCard:other' }],
      remove: [],
    });
    expect(!twice.ok && twice.error[0]!.wrong).toMatch(/another dial card of the same box/);
  });
  test.each([
    ['its box', (r: Rig) => removeDevice(r, LOW)],
    ['its sound', (r: Rig) => removeSound(r, lead)],
    ['its song', (r: Rig) => removeSong(r, all(r, 'song')[0]!.id)],
    ['its hook-up', (r: Rig) => removeHookup(r, 'hookup:fly')],
  ])('goes with %s', (_, edit) => {
    const hookups = all(demo, 'hookup').map((h) => h.id);
    const rig = [
      { sound: lead },
      { song: all(demo, 'song')[0]!.id },
      { hookup: hookups.find((h) => h !== BALLROOM_ID)! },
    ].reduce((r, where) => write(r, LOW, where, 'gain full'), base);
    const edited = edit(rig);
    const gone = edited.remove.length
      ? edited
      : removeHookup(
          rig,
          hookups.find((h) => h !== BALLROOM_ID)!,
        );
    const left = all(after(rig, gone), 'dialCard').length;
    expect(left).toBeLessThan(all(rig, 'dialCard').length);
  });
});

describe('what a hand turns is the hand’s in the proof', () => {
  const answers = (rig: Rig) => {
    const d = deriveOnce(rig, BALLROOM_ID)!;
    return { d, is: (id: Id<'sound'>) => d.answers.get(id)!.is, view: viewOf(d) };
  };
  const proved = [...answers(demo).d.answers].filter(([, a]) => a.is === 'proved').map(([id]) => id);
  const [one, other] = proved as [Id<'sound'>, Id<'sound'>];
  test('a knob that all have alike asks for nothing', () =>
    expect(answers(write(demo, LOW, {}, 'gain noon')).is(one)).toBe('proved'));
  const stagesIn = (id: Id<'sound'>) =>
    answers(demo).d.compilation.sounds.get(id)!.trace.stages.get('device:low.overdrive');
  const withDrive = proved.filter((id) => stagesIn(id) === 'in');
  test('a sound with a position of its own is left to the hand; in the others the knob is taken to be turned back', () => {
    const [special, usual] = withDrive as [Id<'sound'>, Id<'sound'>];
    const rig = write(write(demo, LOW, {}, 'gain noon'), LOW, { sound: special }, 'gain full');
    const { is, view, d } = answers(rig);
    expect([is(special), is(usual)]).toEqual(['left to hands', 'proved']);
    expect(view.sounds.find((s) => s.id === special)!.byHand).toEqual(['LOW gain to full']);
    const name = demo.parts.sound.get(special)!.name;
    expect(view.homes).toEqual([`LOW gain at noon, but in ${name}`]);
    expect(d.judgement.findings.filter((f) => f.code === 'recall.knob-left')).toEqual([]);
  });
  test('a knob of a box that is out of the sound asks for nothing there', () => {
    const without = proved.find((id) => stagesIn(id) !== 'in')!;
    expect(answers(write(demo, LOW, { sound: without }, 'gain full')).is(without)).toBe('proved');
  });
  test('where nobody says it otherwise it stays as it was left, and that is found', () => {
    const rig = write(demo, undefined, { sound: one }, 'volume 7, slide');
    const { is, d } = answers(rig);
    expect([is(one), is(other)]).toEqual(['left to hands', 'proved']);
    const found = d.judgement.findings.filter((f) => f.code === 'recall.knob-left');
    expect(found.map((f) => f.why.slice(0, 36))).toEqual(
      ["the instrument's volume stands at 7 ", "the instrument's slide stands at on "].map((w) => w.slice(0, 36)),
    );
  });
});

test('a hand is asked for exactly where a sound says otherwise than what holds for all', () => {
  const sounds = soundsInOrder(demo)
    .slice(0, 4)
    .map((s) => s.id);
  const isHeard = (sound: Id<'sound'>) => sounds.includes(sound);
  const at = fc.constantFrom('noon', "12 o'clock", '3', 'full', undefined);
  fc.assert(
    fc.property(at, fc.array(at, { minLength: 4, maxLength: 4 }), (base, own) => {
      let rig = base === undefined ? demo : write(demo, LOW, {}, `gain ${base}`);
      own.forEach((position, i) => {
        if (position !== undefined) rig = write(rig, LOW, { sound: sounds[i]! }, `gain ${position}`);
      });
      const { moves, left } = dialsOf(rig, BALLROOM_ID, isHeard);
      const isAlike = base === undefined && own.every((o) => o !== undefined && samePosition(o, own[0]));
      const turned = sounds.map((s) => (moves.get(s)?.length ?? 0) > 0);
      expect(turned).toEqual(own.map((o) => o !== undefined && !isAlike && !samePosition(o, base)));
      const open = own.filter((o) => o === undefined).length;
      expect(left.length > 0).toBe(base === undefined && open > 0 && open < own.length);
    }),
    { numRuns: 60 },
  );
});

test('hands of an instrument and of a box are told apart', () => {
  const rig = write(write(demo, LOW, {}, 'volume noon'), undefined, { sound: clean }, 'volume 7');
  expect(movesOf(rig, clean)).toEqual(['hands volume 7']);
});
