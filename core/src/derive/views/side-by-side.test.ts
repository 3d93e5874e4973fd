import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import type { Id } from '../../rig/ids.js';
import { all, soundsInOrder } from '../../rig/rig.js';
import type { Item } from '../../signal/drawing/picture.js';
import { deriveOnce } from '../steps/deriver.js';
import { align, sideBySide } from './side-by-side.js';
import { soundRun } from './view.js';

const rig = islandRun();
const ballroom = deriveOnce(rig, BALLROOM_ID)!;
const ferry = deriveOnce(rig, all(rig, 'hookup')[1]!.id)!;
const sound = (name: string): Id<'sound'> => soundsInOrder(rig).find((s) => s.name === name)!.id;
const kept = (items: readonly (Item | undefined)[]) => items.filter((i) => i !== undefined);

describe('two sounds in one hook-up', () => {
  const both = sideBySide(
    { derived: ballroom, sound: sound('Verse clean') },
    { derived: ballroom, sound: sound('Waltz lead') },
  );
  test('what differs is said once for each stage, and settings after that', () => {
    const said = Object.fromEntries(both.changes.map((c) => [c.text, `${c.a} → ${c.b}`]));
    expect(said).toMatchObject({ HIG: 'out → in', 'HED clean': 'in → out', 'HED lead': 'out → in' });
    expect(Object.keys(said).some((t) => t.startsWith('CMP'))).toBe(false);
    expect(both.changes.every((c) => c.a !== c.b)).toBe(true);
  });
  test('boxes that sound in one only are marked', () =>
    expect([...both.differ].sort()).toEqual(expect.arrayContaining(['device:hed', 'device:hig'])));
  test('nothing of either run is lost, and what both have stands in the same place', () => {
    expect(kept(both.a)).toEqual(soundRun(ballroom, sound('Verse clean')));
    expect(kept(both.b)).toEqual(soundRun(ballroom, sound('Waltz lead')));
    expect(both.a).toHaveLength(both.b.length);
    const place = (side: readonly (Item | undefined)[], device: string) =>
      side.findIndex((i) => i?.is === 'box' && i.device === `device:${device}`);
    for (const d of ['gsc', 'tun', 'vol', 'cab']) expect(place(both.a, d)).toBe(place(both.b, d));
  });
});

test('a sound beside itself differs in nothing', () => {
  for (const { id } of soundsInOrder(rig))
    expect(sideBySide({ derived: ballroom, sound: id }, { derived: ballroom, sound: id })).toMatchObject({
      differ: [],
      changes: [],
    });
});

test('one sound in two hook-ups: the amp is not wired in the other', () => {
  const both = sideBySide(
    { derived: ballroom, sound: sound('Verse clean') },
    { derived: ferry, sound: sound('Verse clean') },
  );
  expect(both.changes.find((c) => c.text === 'HED clean')).toMatchObject({ a: 'in', b: 'not wired' });
  expect(both.changes.find((c) => c.text.startsWith('PRE'))).toMatchObject({ a: 'not wired', b: 'in' });
});

test('lining up keeps the order of both', () => {
  const box = (d: string): Item => ({ is: 'box', device: `device:${d}`, stages: [] });
  const { a, b } = align(['g', 'x', 'y', 'c'].map(box), ['g', 'y', 'z', 'c'].map(box));
  const said = (items: readonly (Item | undefined)[]) =>
    items.map((i) => (i?.is === 'box' ? i.device.slice(7) : '-')).join('');
  expect([said(a), said(b)]).toEqual(['gxy-c', 'g-yzc']);
});
