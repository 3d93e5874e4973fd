import { after, withParts } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../../demo/island-run.js';
import { makeDevice } from '../../catalogue/make.js';
import { clearOrder, setArrangement } from '../../edits/arrange.js';
import { replaceDevice } from '../../edits/replace.js';
import { addSound, setHears, setLevel, setOrder, setWant } from '../../edits/sounds.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, type Part, type Rig } from '../../rig/rig.js';
import { benchView } from './bench-view.js';
import { deriveOnce } from '../steps/deriver.js';
import { setUpBench, takeStep } from '../play/play.js';
import { besideIn, carriedIn, inLineIn } from '../../signal/graph/arrangement.js';
import { soundRun } from './view.js';
import { soundDetail } from './sound-detail.js';

const demo = islandRun();
const detail = (rig: Rig, sound: Id<'sound'>, hookup = BALLROOM_ID) => soundDetail(deriveOnce(rig, hookup)!, sound)!;
const lead = partOf(demo, 'sound:04')!;

describe('the order of the stages', () => {
  test('as the signal meets them; what lives in a loop of the switcher can be moved', () => {
    const { order, ownOrder } = detail(demo, 'sound:04');
    expect(order.map((o) => o.text)).toEqual([
      'WLS',
      'TUN',
      'VOL',
      'CMP',
      'LOW',
      'HIG',
      'HED lead',
      'REV',
      'DLY',
      'HED power',
      'CAB',
      'MCB',
    ]);
    expect(order.filter((o) => o.loop).map((o) => o.text)).toEqual(['CMP', 'LOW', 'HIG', 'HED lead', 'REV']);
    expect(ownOrder).toBe(false);
  });
  test('said otherwise the switcher arranges its loops so, and given back it is as before', () => {
    const moved = after(demo, setOrder(lead, ['device:hig.overdrive', 'device:low.overdrive']));
    expect(
      detail(moved, 'sound:04')
        .order.map((o) => o.text)
        .slice(3, 6),
    ).toEqual(['CMP', 'HIG', 'LOW']);
    expect(
      deriveOnce(moved, BALLROOM_ID)!
        .compilation.sounds.get('sound:04')!
        .wants.find((w) => w.control === 'device:swi.order')!.value,
    ).toBe('loop1 loop2 loop4 loop3 loop5 loop6 loop7 loop8');
    expect(after(moved, setOrder(partOf(moved, 'sound:04')!, undefined)).parts.sound.get('sound:04')).toEqual(lead);
  });
  test('what shares a loop is one place, carried together', () => {
    const back = all(demo, 'cable').find((c) => c.hookup === BALLROOM_ID && c.ends.includes('device:swi.return3'))!;
    const shared = withParts(
      demo,
      { ...makeDevice('boost', 'device:bst'), code: 'BST' },
      { ...back, ends: ['device:low.out', 'device:bst.in'] },
      { ...back, id: 'cable:bst-back', ends: ['device:bst.out', 'device:swi.return3'] },
    );
    const wanted = after(shared, setWant(partOf(shared, 'sound:04')!, { stage: 'device:bst.boost', is: 'in' }));
    const { order } = detail(wanted, 'sound:04');
    const place = order.find((p) => p.text === 'LOW + BST')!;
    const { control, arrangement, slot } = place.loop!;
    const shown = new Set(order.flatMap((p) => p.loop?.slot ?? []));
    const earlier = carriedIn(arrangement, slot, -1, shown);
    const stages = order.filter((p) => p.loop).flatMap((p) => p.stages);
    const inOrder = [...place.stages, ...stages.filter((s) => !place.stages.includes(s))];
    const moved = after(
      wanted,
      setArrangement(partOf(wanted, 'sound:04')!, control, earlier, inOrder, { hookup: BALLROOM_ID, only: false }),
    );
    expect(detail(moved, 'sound:04')).toMatchObject({ fails: [], ownOrder: true });
    expect(
      detail(moved, 'sound:04')
        .order.map((o) => o.text)
        .slice(3, 5),
    ).toEqual(['LOW + BST', 'CMP']);
  });
  test('two loops beside each other: the signal goes through both at once', () => {
    const swapped = after(demo, replaceDevice(demo, 'device:swi', 'switcher-8-parallel')!.edit);
    const { order } = detail(swapped, 'sound:04');
    const place = order.find((p) => p.text === 'HIG')!.loop!;
    const shown = new Set(order.flatMap((p) => p.loop?.slot ?? []));
    const beside = besideIn(place.arrangement, place.slot, shown, place.ways);
    expect(beside).toBe('loop1 loop2 ( loop3 | loop4 ) loop5 loop6 loop7 loop8');
    const both = after(
      swapped,
      setArrangement(partOf(swapped, 'sound:04')!, place.control, beside, [], { hookup: BALLROOM_ID, only: false }),
    );
    const now = detail(both, 'sound:04');
    expect(now.fails).toEqual([]);
    expect(now.order.filter((p) => p.loop?.beside).map((p) => p.text)).toEqual(['LOW', 'HIG']);
    const splits = soundRun(deriveOnce(both, BALLROOM_ID)!, 'sound:04').filter((item) => item.is === 'split');
    expect(splits.map((s) => s.arms.length)).toEqual([2]);
    const cleared = after(both, clearOrder(partOf(both, 'sound:04')!, [place.control]));
    expect(partOf(cleared, 'sound:04')!.wants).toEqual(partOf(swapped, 'sound:04')!.wants);
  });
  test('a derived sound is put in line again although its parent goes through two loops at once', () => {
    const swapped = after(demo, replaceDevice(demo, 'device:swi', 'switcher-8-parallel')!.edit);
    const place = detail(swapped, 'sound:04').order.find((p) => p.text === 'HIG')!.loop!;
    const beside = 'loop1 loop2 ( loop3 | loop4 ) loop5 loop6 loop7 loop8';
    const scope = { hookup: BALLROOM_ID, only: false };
    const both = after(swapped, setArrangement(partOf(swapped, 'sound:04')!, place.control, beside, [], scope));
    const derived = after(both, addSound(both, 'sound:new', 'Lead, quieter', 'lead', 'sound:04'));
    const besides = (rig: Rig) => detail(rig, 'sound:new').order.filter((p) => p.loop?.beside).length;
    expect(besides(derived)).toBe(2);
    const stages = detail(derived, 'sound:new')
      .order.filter((p) => p.loop)
      .flatMap((p) => p.stages);
    const line = inLineIn(beside, 'loop4');
    const inLine = after(derived, setArrangement(partOf(derived, 'sound:new')!, place.control, line, stages, scope));
    expect(besides(inLine)).toBe(0);
    expect(detail(inLine, 'sound:04').order.filter((p) => p.loop?.beside)).toHaveLength(2);
  });
  test('what no switcher can bring about is said', () => {
    const wrong = after(demo, setOrder(lead, ['device:dly.delay', 'device:low.overdrive']));
    expect(detail(wrong, 'sound:04').fails).toEqual(['DLY cannot be met before LOW in this hook-up.']);
  });
});

describe('where it is heard', () => {
  test('as the hook-up says, with how it arrives there', () => {
    expect(detail(demo, 'sound:04')).toMatchObject({
      ownEnds: false,
      ends: [
        {
          from: expect.stringContaining('device:gsc'),
          at: expect.stringContaining('device:foh'),
          as: 'sounds',
          now: 'mono',
        },
      ],
      fails: [],
    });
    expect(detail(demo, 'sound:04', FERRY_ID).ends[0]!.now).toBe('stereo');
  });
  test('a sound of its own mind: stereo where one side arrives, silence where it sounds', () => {
    const { ends } = detail(demo, 'sound:04');
    const said = (as: 'stereo' | 'silent') =>
      detail(
        after(
          demo,
          setHears(
            lead,
            [{ ...ends[0]!, as }].map(({ from, at }) => ({ from, at, as })),
          ),
        ),
        'sound:04',
      );
    expect(said('stereo').fails).toEqual([expect.stringContaining('with one side only')]);
    expect(said('silent').fails).toEqual([expect.stringContaining('is heard at Front of house')]);
    expect(said('stereo').ownEnds).toBe(true);
    expect(
      after(demo, setHears(after(demo, setHears(lead, [])).parts.sound.get('sound:04')!, undefined)).parts.sound.get(
        'sound:04',
      ),
    ).toEqual(lead);
  });
});

test('how loud: the wish, and by how much it is so by what is stated and differs', () => {
  const wished = after(demo, setLevel(lead, { than: 'sound:01', db: 3 }));
  expect(detail(wished, 'sound:04').level).toEqual({ wished: 3, is: 3, measured: false });
  expect(detail(demo, 'sound:04').level).toBeUndefined();
  expect(after(wished, setLevel(partOf(wished, 'sound:04')!, undefined)).parts.sound.get('sound:04')).toEqual(lead);
});

describe('what is under a pedal', () => {
  const rig = (leads: readonly string[] = ['x.exp>c.exp1']) =>
    smallRig({
      boxes: { g: 'single-coil', c: 'midi-controller-exp', d: 'stereo-delay', w: 'powered-speaker', x: 'expression' },
      leads: ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in', ...leads],
      sounds: { Swell: ['d.delay'] },
      with: (p: Part) =>
        p.kind === 'sound'
          ? {
              ...p,
              wants: [...p.wants, { control: 'device:d.mix', pedal: 'device:c.exp1', heel: 10, toe: 60, at: 30 }],
              calls: [{ device: 'device:c', memory: 'slots', slot: 0 }],
            }
          : p,
    });
  test('by which message, where it stands until it is touched, and by how much it can jump', () =>
    expect(detail(rig(), 'sound:swell', SMALL).pedals).toEqual([
      {
        control: 'device:d.mix',
        pedal: 'device:c.exp1',
        works: true,
        text: 'D mix from 10 % (heel) to 60 % (toe)',
        says: 'by controller 20 on channel 3; 30 % until it is touched, then it can jump by 30',
      },
    ]));
  test('or why nothing moves it', () =>
    expect(detail(rig([]), 'sound:swell', SMALL).pedals[0]).toMatchObject({
      works: false,
      says: 'nothing is plugged in there',
    }));
  test('on the bench a sound whose pedal was moved still stands as wanted; a foot on the box does not count as a pedal', () => {
    const d = deriveOnce(rig(), SMALL)!;
    const bench = setUpBench(d, {});
    takeStep(d, bench, { does: 'recall', sound: 'sound:swell' });
    bench.pedal('device:c', 'exp1', 127);
    expect([bench.value('device:d.mix'), benchView(d, bench).sound!.wrong]).toEqual([60, []]);
    bench.turn('device:d.mix', 90);
    expect(benchView(d, bench).sound!.wrong).toEqual(['D mix is 90 %, wanted 30 %']);
  });
});

test('a sound that is not there has no detail', () =>
  expect(soundDetail(deriveOnce(demo, BALLROOM_ID)!, 'sound:none')).toBeUndefined());
