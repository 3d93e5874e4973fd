import { SMALL, smallRig, type SmallRig } from '../../../testing/small-rig.js';
import { randomRig } from '../../../testing/random-rig.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../../demo/island-run.js';
import { partOf } from '../../rig/rig.js';
import { anatomy, type Anatomy } from './anatomy.js';
import { restingState } from './state.js';
import { trace } from './trace.js';

const of = (rig: SmallRig): Anatomy => {
  const made = smallRig(rig);
  return anatomy(made, partOf(made, SMALL)!);
};
const loops = (a: Anatomy) =>
  Object.fromEntries(
    a.loops.map((l) => [l.name.slice('device:'.length), l.holds.map((h) => h.slice('device:'.length)).sort()]),
  );
const inserts = (a: Anatomy, stage: string) =>
  a.stages.get(`device:${stage}` as `device:${string}.${string}`)!.inserts.map((l) => l.name.slice('device:'.length));

describe('what a loop holds', () => {
  test('the boxes between its send and its return, in the demo', () => {
    const a = anatomy(islandRun(), partOf(islandRun(), BALLROOM_ID)!);
    expect(loops(a)).toEqual({
      'swi.loop1': ['cmp.compressor'],
      'swi.loop2': ['ofz.fuzz'],
      'swi.loop3': ['low.overdrive'],
      'swi.loop4': ['hig.overdrive'],
      'swi.loop5': ['gat.gate'],
      'swi.loop6': ['hed.clean', 'hed.lead'],
      'swi.loop7': ['mod.modulation'],
      'swi.loop8': ['rev.reverb'],
    });
  });
  test('a loop with two boxes holds both; one that is half plugged holds nothing', () => {
    const a = of({
      boxes: { g: 'single-coil', s: 'switcher-4', k: 'compressor', d: 'low-drive', w: 'wah', i: 'di', foh: 'desk' },
      leads: [
        'g.out>s.in',
        's.send1>k.in',
        'k.out>d.in',
        'd.out>s.return1',
        's.send2>w.in',
        's.out>i.in',
        'i.out>foh.ch1',
      ],
    });
    expect(loops(a)['s.loop1']).toEqual(['d.overdrive', 'k.compressor']);
    expect(loops(a)['s.loop2']).toEqual([]);
  });
  test('a switcher inside a loop of another: the outer one comes first', () => {
    const a = of({
      boxes: { g: 'single-coil', m: 'modeller', t: 'switcher-4', d: 'low-drive', i: 'di', foh: 'desk' },
      leads: [
        'g.out>m.in',
        'm.send>t.in',
        't.send1>d.in',
        'd.out>t.return1',
        't.out>m.return',
        'm.out-l>i.in',
        'i.out>foh.ch1',
      ],
    });
    expect(inserts(a, 'd.overdrive')).toEqual(['m.loop', 't.loop1']);
    expect(loops(a)['m.loop']).toEqual(['d.overdrive']);
  });
  test('two loops side by side around one box: only one of them counts as its gate', () => {
    const a = of({
      boxes: { g: 'single-coil', s: 'switcher-4', m: 'stereo-modulation', i: 'di', foh: 'desk' },
      leads: [
        'g.out>s.in',
        's.send1>m.in-l',
        'm.out-l>s.return1',
        's.send2>m.in-r',
        'm.out-r>s.return2',
        's.out>i.in',
        'i.out>foh.ch1',
      ],
    });
    expect(inserts(a, 'm.modulation')).toHaveLength(1);
  });
});

describe('what takes a stage in and out', () => {
  test('channels of an amp stand behind gates; its power stage is always there', () => {
    const a = of({
      boxes: { g: 'single-coil', h: 'valve-head', c: 'cab-212' },
      leads: ['g.out>h.in', 'h.speaker>c.in'],
    });
    expect(a.stages.get('device:h.lead')).toMatchObject({
      always: false,
      gates: [{ device: 'device:h', when: [{ control: 'channel', in: ['lead'] }] }],
    });
    expect([a.stages.get('device:h.power')!.always, a.stages.get('device:c.cabinet')!.always]).toEqual([true, true]);
  });
  test('a cabinet behind the preamp of one box comes and goes with it', () => {
    const a = anatomy(islandRun(), partOf(islandRun(), FERRY_ID)!);
    expect([a.stages.get('device:pre.cabinet')!.rides, a.stages.get('device:pre.preamp')!.rides]).toEqual([
      true,
      false,
    ]);
  });
  test('boxes without a cable have no stage here', () => {
    const a = of({
      boxes: { g: 'single-coil', d: 'low-drive', h: 'valve-head', c: 'cab-212' },
      leads: ['g.out>h.in', 'h.speaker>c.in'],
    });
    expect(a.stages.has('device:d.overdrive')).toBe(false);
  });
});

test('a loop that is off keeps what it holds off the path, on random rigs', () => {
  let looked = 0;
  for (let seed = 1; seed <= 60; seed += 1) {
    const { rig, hookup } = randomRig(seed);
    const a = anatomy(rig, hookup);
    const off = restingState(rig, hookup);
    for (const loop of a.loops) {
      const fact = loop.insert.on?.[0];
      if (fact && 'control' in fact) off.set(`${loop.device}.${fact.control}`, 'off');
    }
    const t = trace(a.wiring, off);
    for (const [stage, { inserts: around }] of a.stages) {
      if (around.length === 0) continue;
      looked += 1;
      expect([seed, stage, t.stages.get(stage)]).toEqual([seed, stage, 'outside']);
    }
  }
  expect(looked).toBeGreaterThan(50);
});
