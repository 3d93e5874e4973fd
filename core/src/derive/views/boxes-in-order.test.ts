import { after } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { wantBefore } from '../../edits/arrange.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { boxesInOrder } from './boxes-in-order.js';

const rig = smallRig({
  boxes: { g: 'single-coil', a: 'boost', b: 'low-drive', c: 'chorus', w: 'powered-speaker' },
  leads: ['g.out>a.in', 'a.out>b.in', 'b.out>c.in', 'c.out>w.in'],
  sounds: { Clean: [], Drive: ['b.overdrive'], Lead: ['a.boost', 'b.overdrive'] },
});
const asks = (of: Rig, sound: string, first: string, second: string): Rig =>
  after(of, wantBefore(thePart(of, `sound:${sound}`), thePart(of, `device:${first}`), thePart(of, `device:${second}`)));
const answer = (of: Rig) => boxesInOrder(deriveOnce(of, SMALL)!);

test('nothing is asked where no sound says an order', () => expect(answer(rig)).toBeUndefined());

test('boxes stand as they are wired, and wants that go together contradict nothing', () => {
  const of = answer(asks(asks(rig, 'drive', 'c', 'b'), 'lead', 'c', 'a'))!;
  expect(of.boxes.map((b) => b.device)).toEqual(['device:a', 'device:b', 'device:c']);
  expect(of.contradiction).toEqual([]);
});

test('two sounds that want two boxes each the other way round are named', () => {
  const of = answer(asks(asks(rig, 'drive', 'c', 'b'), 'lead', 'b', 'c'))!;
  const said = of.contradiction.map((w) => [
    of.sounds[w.by]!.name,
    of.boxes[w.before]!.device,
    of.boxes[w.after]!.device,
  ]);
  expect(said.sort()).toEqual([
    ['Drive', 'device:c', 'device:b'],
    ['Lead', 'device:b', 'device:c'],
  ]);
});

test('what a sound wants joins what it wanted before', () => {
  const once = asks(rig, 'lead', 'c', 'b');
  const twice = asks(once, 'lead', 'c', 'a');
  const of = answer(twice)!;
  const pairs = of.problem.wants.map((w) => `${of.boxes[w.before]!.device} ${of.boxes[w.after]!.device}`);
  expect(pairs).toContain('device:c device:b');
  expect(pairs).toContain('device:c device:a');
});
