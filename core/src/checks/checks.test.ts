import { after, notGranted } from '../../testing/after.js';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { testCheck } from '../../testing/check-tester.js';
import type { Edit } from '../change/edit.js';
import { makeDevice } from '../catalogue/make.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { acceptFinding } from '../edits/findings.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { tried } from '../derive/views/tried.js';
import type { Device } from '../rig/device.js';
import type { Ref } from '../rig/ids.js';
import { partOf, type Part, type Rig } from '../rig/rig.js';
import type { Check } from './check.js';
import { CHECKS } from './index.js';
import { findingsPage } from './page.js';
import { fingerprintOf, judge } from './settle.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;
const demo = islandRun();
const changed = (edit: Edit, rig = demo): Rig => after(rig, edit);
const put = (...parts: Part[]): Rig => changed({ put: parts, remove: [] });
const without = (...remove: Part['id'][]): Rig => changed({ put: [], remove });
const cable = (id: string, from: string, to: string): Part => ({
  kind: 'cable',
  id: `cable:${id}`,
  hookup: BALLROOM_ID,
  ends: [`device:${from}` as Ref, `device:${to}` as Ref],
});
const box = (id: `device:${string}`, change: (d: Device) => Device): Part => change(partOf(demo, id)!);
const sound = (n: string) => partOf(demo, `sound:${n}`)!;

testCheck(check('wire.silent'), BALLROOM_ID, [
  {
    name: 'a pulled speaker cable silences everything, and it says where',
    rig: without('cable:b25'),
    evidence: ['device:hed', 'sound:01'],
    says: 'jack speaker, with no cable that leads on',
  },
  { name: 'the demo sounds', rig: demo, evidence: [] },
]);
testCheck(check('wire.ring'), BALLROOM_ID, [
  {
    name: "a splitter that feeds the selector's other input, once a foot sets it so",
    rig: changed({
      put: [
        makeDevice('splitter', 'device:spl'),
        cable('r1', 'sel.out', 'spl.in'),
        cable('r2', 'spl.out1', 'tun.in'),
        cable('r3', 'spl.out2', 'sel.b'),
      ],
      remove: ['cable:b03', 'cable:b04'],
    }),
    evidence: ['device:sel', 'device:spl'],
    says: 'runs in a ring',
  },
  { name: 'four cables are no ring', rig: demo, evidence: [] },
]);
const called = (n: string, slot: number): Part => ({
  ...sound(n),
  calls: sound(n).calls.map((c) => ({ ...c, slot })),
});
testCheck(check('set.stomps'), BALLROOM_ID, [
  {
    name: 'a sound of a song in another bank: which change, and how many bank keys',
    rig: put(called('14', 45)),
    evidence: ['song:06', 'device:swi'],
    says: 'In “Gangway”',
  },
  { name: 'the demo keeps each song in a bank', rig: demo, evidence: [] },
]);
testCheck(check('wire.direction'), BALLROOM_ID, [
  {
    name: 'two outputs',
    rig: put(cable('d', 'swi.ctl2', 'hed.mains')),
    evidence: ['cable:d', 'device:swi', 'device:hed'],
    says: 'a contact jack and a mains jack',
  },
  {
    name: 'output to output',
    rig: changed({ put: [cable('d', 'mod.out-r', 'dly.out-r')], remove: [] }),
    evidence: ['cable:d'],
    says: 'two outputs',
  },
  { name: 'the demo is plugged the right way round', rig: demo, evidence: [] },
]);
testCheck(check('wire.spare-return'), BALLROOM_ID, [
  {
    name: 'a send without its return',
    rig: without('cable:b08'),
    evidence: ['device:swi', 'cable:b07'],
    says: 'the send of loop1 is plugged',
  },
  {
    name: 'a return without its send',
    rig: without('cable:b07'),
    evidence: ['device:swi', 'cable:b08'],
    says: 'the return of loop1 is plugged',
  },
  {
    name: 'a return left open on purpose: what is sent reaches the house',
    rig: changed({
      put: [makeDevice('di', 'device:di'), cable('p1', 'swi.send1', 'di.in'), cable('p2', 'di.out', 'foh.ch2')],
      remove: ['cable:b07', 'cable:b08'],
    }),
    evidence: [],
  },
]);
testCheck(check('wire.unused'), BALLROOM_ID, [
  {
    name: 'a box that is wired to nothing',
    rig: put(makeDevice('wah', 'device:wah')),
    evidence: ['device:wah'],
    says: 'has no cable in any hook-up',
  },
  { name: 'everything is wired', rig: demo, evidence: [] },
]);
testCheck(check('order.conflict'), BALLROOM_ID, [
  {
    name: 'the tuner is wanted after the compressor, but stands before the switcher',
    rig: put({ ...sound('02'), order: ['device:cmp.compressor', 'device:wls.wireless'] }),
    evidence: ['device:cmp', 'device:wls', 'sound:02'],
    says: 'can reorder its loops, but Wireless is in none of them',
  },
  {
    name: 'both in one loop of a switcher that can reorder',
    rig: changed({
      put: [
        {
          ...sound('02'),
          wants: [...sound('02').wants, { stage: 'device:bst.boost', is: 'in' }],
          order: ['device:bst.boost', 'device:cmp.compressor'],
        },
        makeDevice('boost', 'device:bst'),
        cable('b08', 'cmp.out', 'bst.in'),
        cable('x8', 'bst.out', 'swi.return1'),
      ],
      remove: [],
    }),
    evidence: ['device:bst', 'device:cmp', 'sound:02'],
    says: 'both hang in loop1 of Eight-loop switcher, which can reorder its loops',
  },
  {
    name: 'the switcher reorders its loops',
    rig: put({ ...sound('02'), order: ['device:low.overdrive', 'device:cmp.compressor'] }),
    evidence: [],
  },
]);
testCheck(check('recall.unpinned'), BALLROOM_ID, [
  { name: 'the toggle in Chorus wide', rig: demo, evidence: ['device:dly', 'sound:03'], says: 'DLY on/off' },
  {
    name: 'two sounds that want different things say which wants what',
    says: 'wanted off in “Verse clean” and on in “Chorus wide”',
    evidence: ['device:dly'],
    rig: put({
      ...sound('01'),
      wants: [
        ...sound('01').wants.filter((w) => !JSON.stringify(w).includes('device:dly')),
        { control: 'device:dly.on', is: 'off' },
      ],
    }),
  },
  {
    name: 'the typed slot of Waltz grit',
    rig: demo,
    evidence: ['device:mod', 'sound:06'],
    says: 'Stomp Waltz grit, 2B',
  },
  {
    name: 'both cured',
    rig: changed({
      put: [{ ...sound('03'), wants: [...sound('03').wants, { control: 'device:dly.program', is: 6 }] }],
      remove: ['program:swi-5'],
    }),
    evidence: [],
  },
]);
testCheck(check('recall.toggle'), BALLROOM_ID, [
  { name: 'the delay in Chorus wide', rig: demo, evidence: ['device:dly', 'sound:03'], says: 'turns it over' },
  {
    name: 'a program sets it',
    rig: put({ ...sound('03'), wants: [...sound('03').wants, { control: 'device:dly.program', is: 6 }] }),
    evidence: [],
  },
]);
const compressorInLine = changed(
  {
    put: [cable('x1', 'vol.out', 'cmp.in'), cable('x2', 'cmp.out', 'swi.in')],
    remove: ['cable:b06', 'cable:b07', 'cable:b08'],
  },
  notGranted(demo, 'device:cmp.on'),
);
testCheck(check('recall.hand-move'), BALLROOM_ID, [
  {
    name: 'a compressor in line that sounds want differently',
    rig: compressorInLine,
    evidence: ['device:cmp', 'sound:01', 'sound:10'],
    says: 'reached only by foot',
  },
  {
    name: 'what is set once is a note, and can be taken for granted',
    rig: notGranted(demo, 'device:low.on', 'device:hig.on'),
    evidence: ['device:low', 'device:hig'],
    says: 'Set once and left so:',
    ways: ['Take for granted that nobody touches these 2'],
  },
  { name: 'in its loop the switcher does it', rig: demo, evidence: [] },
]);
const stubbornMod = box('device:mod', (d) => ({
  ...d,
  memories: d.memories.map((m) => ({ ...m, again: 'nothing' })),
  actuators: d.actuators.map((a) => (a.id === 'mix' ? { ...a, by: { midi: 'cc', number: 21 } } : a)),
}));
testCheck(check('recall.move-left-on'), BALLROOM_ID, [
  {
    name: 'a move turns the modulation down, and the box does not reload its program',
    rig: put(
      box('device:mod', (d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, again: 'nothing' })) })),
      {
        kind: 'program',
        id: 'program:swi-12',
        device: 'device:swi',
        memory: 'slots',
        number: 12,
        name: 'Lantern',
        acts: [
          { send: { pc: 11, channel: 2 }, at: 'midi-out' },
          { send: { pc: 0, channel: 3 }, at: 'midi-out' },
          { send: { pc: 4, channel: 4 }, at: 'midi-out' },
        ],
        assigns: [],
        contents: {
          loop1: 'on',
          loop2: 'off',
          loop3: 'off',
          loop4: 'off',
          loop5: 'off',
          loop6: 'on',
          loop7: 'on',
          loop8: 'on',
          order: 'loop1 loop2 loop3 loop4 loop5 loop6 loop7 loop8',
          ctl1: 'open',
          ctl2: 'open',
          output: 'open',
          trim: 0,
        },
      },
      {
        kind: 'move',
        id: 'move:dip',
        name: 'Dip',
        sounds: ['sound:13'],
        latch: true,
        at: [{ device: 'device:swi', switch: 'G' }],
        on: [{ control: 'device:mod.mix', is: 10 }],
        off: [{ control: 'device:mod.mix', is: 45 }],
      },
    ),
    evidence: ['device:mod', 'move:dip', 'sound:13'],
    says: 'Dip',
  },
  { name: 'with a control change behind the program change it comes back', rig: put(stubbornMod), evidence: [] },
]);
testCheck(check('midi.number-shift'), BALLROOM_ID, [
  {
    name: '13 typed for what the wire calls 12',
    rig: demo,
    evidence: ['device:mod', 'sound:06', 'program:swi-5'],
    says: 'shows 14; program 13 was meant',
  },
  { name: 'the right number', rig: without('program:swi-5'), evidence: [] },
]);
testCheck(check('midi.crosstalk'), BALLROOM_ID, [
  {
    name: 'two boxes on one channel',
    rig: put(box('device:rev', (d) => ({ ...d, midi: { ...d.midi!, channel: 3 } }))),
    evidence: ['device:rev', 'device:dly'],
    says: 'also reacts',
  },
  {
    name: 'a box that answers to every channel',
    rig: put(box('device:mod', (d) => ({ ...d, midi: { ...d.midi!, omni: true } }))),
    evidence: ['device:mod'],
    says: 'also reacts',
  },
  { name: 'each on its own', rig: demo, evidence: [] },
]);

describe('the list of findings', () => {
  test('stands in the handbook as the checks say it', () => {
    expect(readFileSync(join(__dirname, '../../../docs/findings.md'), 'utf8')).toBe(findingsPage());
  });
  test('is sorted by code, and every check has a title, a source and a severity', () => {
    expect(CHECKS.map((c) => c.code)).toEqual(CHECKS.map((c) => c.code).sort());
    for (const c of CHECKS)
      expect([c.title, c.source, c.severities.length]).toEqual([
        expect.stringMatching(/\w/),
        expect.stringMatching(/\w/),
        expect.any(Number),
      ]);
  });
  test('a check that throws becomes a fault of that check; the others are heard', () => {
    const bad: Check = {
      ...check('wire.unused'),
      code: 'wire.bad',
      find: () => {
        throw new Error('out of order');
      },
    };
    const { findings, faults } = judge(deriveOnce(demo, BALLROOM_ID)!, [bad, check('recall.unpinned')]);
    expect(faults).toEqual([{ code: 'wire.bad', message: 'out of order' }]);
    expect(findings).toHaveLength(2);
  });
  test('an accepted finding is kept, quiet, with its reason, until its evidence changes', () => {
    const rig = put(makeDevice('wah', 'device:wah'));
    const unused = (r: Rig) => deriveOnce(r, BALLROOM_ID)!.judgement.findings.filter((f) => f.code === 'wire.unused');
    const quiet = changed(
      acceptFinding('acceptance:1', BALLROOM_ID, 'wire.unused', unused(rig)[0]!.fingerprint, 'spare'),
      rig,
    );
    expect(unused(quiet).map((f) => f.accepted)).toEqual([{ id: 'acceptance:1', reason: 'spare' }]);
    const more = changed({ put: [makeDevice('boost', 'device:bst')], remove: [] }, quiet);
    expect(unused(more).map((f) => [f.evidence[0], f.accepted?.reason])).toEqual([
      ['device:bst', undefined],
      ['device:wah', 'spare'],
    ]);
  });
  test('a fingerprint does not depend on the order of the evidence', () => {
    expect(fingerprintOf('a', { severity: 'note', evidence: ['sound:1', 'device:2'], why: '' })).toBe(
      fingerprintOf('a', { severity: 'note', evidence: ['device:2', 'sound:1'], why: '' }),
    );
  });
});

test('what could not be searched to the end is never silent', () => {
  const d = deriveOnce(demo, BALLROOM_ID)!;
  const verdicts = new Map(
    [...d.verdicts].map(([id, v], i) => [id, i < 2 ? ({ is: 'undecided', because: 'too much.' } as const) : v]),
  );
  const { findings } = judge({ ...d, verdicts }, [check('recall.undecided')]);
  expect(findings).toMatchObject([
    {
      code: 'recall.undecided',
      severity: 'doubt',
      evidence: ['sound:01', 'sound:02'],
      why: expect.stringContaining('neither proved nor found broken: too much.'),
    },
  ]);
  expect(judge(d, [check('recall.undecided')]).findings).toEqual([]);
});

describe('remedies are tried before they are offered', () => {
  const now = deriveOnce(demo, BALLROOM_ID)!;
  const offered = (code: string, box: string) =>
    tried(
      now,
      now.judgement.findings.find((f) => f.code === code && f.evidence[0] === box)!,
    );
  test('the toggle: one click proves the sound', () =>
    expect(offered('recall.unpinned', 'device:dly').map((t) => [t.remedy.id, t.bringsBack])).toEqual([
      ['call-program', ['sound:03']],
    ]));
  test('the slot that is one off: one click proves the sound', () =>
    expect(offered('recall.unpinned', 'device:mod').map((t) => [t.remedy.id, t.bringsBack])).toEqual([
      ['replan', ['sound:06']],
    ]));
  test('the number itself: corrected, and the sound is proved', () =>
    expect(offered('midi.number-shift', 'device:mod').map((t) => [t.remedy.id, t.bringsBack])).toEqual([
      ['correct', ['sound:06']],
    ]));
});
