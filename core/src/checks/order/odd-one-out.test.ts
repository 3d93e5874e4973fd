import { after } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { giveSlots, setOrder, setOrderReason, setReason, setWantIn } from '../../edits/sounds.js';
import { partOf, thePart, type Rig } from '../../rig/rig.js';
import { cellOf, sayWhy, sheetColumns } from '../../sheets/sound-sheet.js';

const names = ['One', 'Two', 'Three', 'Four', 'Five'];
const bare = smallRig({
  boxes: { g: 'single-coil', s: 'switcher-8', d: 'analog-delay', r: 'spring-reverb', f: 'desk' },
  leads: ['g.out>s.in', 's.send1>d.in', 'd.out>s.return1', 's.send2>r.in', 'r.out>s.return2', 's.out>f.ch1'],
  sounds: Object.fromEntries(names.map((n) => [n, ['d.delay', 'r.reverb']])),
});
const rig = after(bare, giveSlots(bare));
const SCOPE = { hookup: SMALL, only: false };
const turned = (r: Rig, id: 'sound:one' | 'sound:two') =>
  after(r, setOrder(thePart(r, id), ['device:r.reverb', 'device:d.delay']));
const odd = (r: Rig) =>
  deriveOnce(r, SMALL)!
    .judgement.findings.filter((f) => f.code === 'order.odd-one-out')
    .map((f) => f.why);

describe('the odd one out', () => {
  test('all alike: nothing is said', () => expect(odd(rig)).toEqual([]));
  test('one of five has delay and reverb the other way round, and nobody said why', () =>
    expect(odd(turned(rig, 'sound:one'))).toEqual([
      'In 4 sounds Analogue delay stands before Reverb pedal, in “One” behind it, and nobody said why.',
    ]));
  test('two of five are no slip', () => expect(odd(turned(turned(rig, 'sound:one'), 'sound:two'))).toEqual([]));
  test('a reason settles it', () => {
    const r = turned(rig, 'sound:one');
    expect(odd(after(r, setOrderReason(thePart(r, 'sound:one'), 'the tail is to be chopped')))).toEqual([]);
  });
});

describe('a reason beside a cell', () => {
  const d = deriveOnce(rig, SMALL)!;
  const column = sheetColumns(rig, d.anatomy).find((c) => c.id === 'device:d.delay')!;
  const one = thePart(rig, 'sound:one');
  const cell = (r: Rig) => cellOf(r, thePart(r, 'sound:one'), column, SMALL);
  test('is kept with what the sound says, and stays when that is changed', () => {
    const said = after(rig, sayWhy(one, column, cell(rig), 'it doubles the riff', SCOPE));
    expect(cell(said)).toMatchObject({ text: '●', why: 'it doubles the riff' });
    const out = after(said, setWantIn(thePart(said, 'sound:one'), { stage: 'device:d.delay', is: 'out' }, SCOPE));
    expect(cell(out)).toMatchObject({ text: '·', why: 'it doubles the riff' });
    expect(cell(after(out, sayWhy(thePart(out, 'sound:one'), column, cell(out), undefined, SCOPE)))).not.toHaveProperty(
      'why',
    );
  });
  test('a stage that the sound does not name is said to be out, with the reason', () => {
    const plain = smallRig({
      boxes: { g: 'single-coil', d: 'analog-delay', f: 'desk' },
      leads: ['g.out>d.in', 'd.out>f.ch1'],
      sounds: { One: [] },
    });
    const said = after(plain, sayWhy(thePart(plain, 'sound:one'), column, cell(plain), 'too much in this room', SCOPE));
    expect(partOf(said, 'sound:one')!.wants).toEqual([
      { stage: 'device:d.delay', is: 'out', why: 'too much in this room' },
    ]);
  });
  test('where nothing is said nothing is kept', () =>
    expect(setReason(one, ['device:s.trim'], 'why', SCOPE).put).toEqual([one]));
});
