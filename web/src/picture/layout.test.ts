import { BALLROOM_ID, islandRun } from '@yunta/core/demo/island-run';
import { deriveOnce } from '@yunta/core/derive/deriver';
import { soundRun } from '@yunta/core/derive/view';
import { randomRig } from '@yunta/core/testing/random-rig';
import { layRun, TAG, type Laid } from './layout.js';

const overlaps = ({ tags }: Laid) => tags.flatMap((a, i) => tags.slice(i + 1).filter((b) => Math.abs(a.x - b.x) < TAG.width && Math.abs(a.y - b.y) < TAG.height).map((b) => `${a.device} on ${b.device}`));

describe('the run as it is drawn', () => {
  test('no two tags overlap and everything lies within the drawing, on the demo and on 150 random rigs', () => {
    const runs = [
      ...[...islandRun().parts.sound.keys()].map((id) => soundRun(deriveOnce(islandRun(), BALLROOM_ID)!, id)),
      ...Array.from({ length: 150 }, (_, seed) => randomRig(seed + 1)).flatMap(({ rig, hookup }) => [...rig.parts.sound.keys()].slice(0, 2).map((id) => soundRun(deriveOnce(rig, hookup.id)!, id))),
    ];
    let drawn = 0;
    for (const items of runs) {
      const laid = layRun(items);
      drawn += laid.tags.length;
      expect(overlaps(laid)).toEqual([]);
      const { x, y, width, height } = laid.box;
      for (const t of laid.tags) expect([t.x >= x, t.x + TAG.width <= x + width, t.y - TAG.height / 2 >= y, t.y + TAG.height / 2 <= y + height]).toEqual([true, true, true, true]);
    }
    expect(drawn).toBeGreaterThan(300);
  });
  test('loops of one switcher share one bar', () => {
    const laid = layRun(soundRun(deriveOnce(islandRun(), BALLROOM_ID)!, 'sound:04'));
    expect(laid.hosts).toHaveLength(1);
    expect(laid.stubs.map((s) => s.codes)).toEqual([['device:ofz'], ['device:gat'], ['device:mod']]);
  });
});
