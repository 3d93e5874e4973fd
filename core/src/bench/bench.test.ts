import fc from 'fast-check';
import { toBytes } from '../midi/bytes.js';
import { islandRun, BALLROOM_ID } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { benchView, momentOf, clock } from '../derive/views/bench-view.js';
import { setUpBench, takeStep } from '../derive/play/play.js';
import { makeDevice } from '../catalogue/make.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import type { Ref } from '../rig/ids.js';
import { rigOf } from '../rig/rig.js';
import { Bench } from './bench.js';
import { ByteReader, type Read } from '../midi/reader.js';
import { Timeline } from './timeline.js';

const read = (...bytes: number[]): Read[] => {
  const reader = new ByteReader();
  return bytes.flatMap((b) => reader.push(b) ?? []);
};

/** Source: MIDI 1.0 Detailed Specification, "Running Status", "System Real Time Messages", "System Exclusive". */
describe('a box reads bytes', () => {
  test('a program change and a control change', () =>
    expect(read(0xc2, 6, 0xb2, 102, 127)).toEqual([
      { status: 0xc, channel: 3, data: [6] },
      { status: 0xb, channel: 3, data: [102, 127] },
    ]));
  test('running status: the status byte may be left out while it stays the same', () =>
    expect(read(0xb0, 0, 1, 32, 5, 0xc0, 7).map((r) => r.data)).toEqual([[0, 1], [32, 5], [7]]));
  test('real-time bytes in between change nothing', () =>
    expect(read(0xb0, 0xf8, 20, 0xfe, 64)).toEqual([{ status: 0xb, channel: 1, data: [20, 64] }]));
  test('system exclusive is skipped and ends running status', () =>
    expect(read(0xc0, 1, 0xf0, 1, 2, 3, 0xf7, 5, 0xc0, 2).map((r) => r.data)).toEqual([[1], [2]]));
  test('data without a status is ignored; a cut message is dropped', () =>
    expect(read(5, 6, 0xb0, 20, 0xc1, 9)).toEqual([{ status: 0xc, channel: 2, data: [9] }]));
  test('what is written is what is read, whatever stands in between', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            channel: fc.integer({ min: 1, max: 16 }),
            a: fc.integer({ min: 0, max: 127 }),
            b: fc.integer({ min: 0, max: 127 }),
            pc: fc.boolean(),
            clock: fc.boolean(),
          }),
          { maxLength: 20 },
        ),
        (list) => {
          const bytes = list.flatMap(({ channel, a, b, pc, clock: tick }) => [
            ...(pc
              ? toBytes({ is: 'pc', channel, program: a })
              : toBytes({ is: 'cc', channel, controller: a, value: b })),
            ...(tick ? [0xf8] : []),
          ]);
          expect(read(...bytes)).toEqual(
            list.map(({ channel, a, b, pc }) => ({ status: pc ? 0xc : 0xb, channel, data: pc ? [a] : [a, b] })),
          );
        },
      ),
    ));
});

test('things happen in the order of their time, and in the order planned at the same time', () => {
  const time = new Timeline();
  const seen: string[] = [];
  for (const [at, name] of [
    [30, 'c'],
    [10, 'a'],
    [30, 'd'],
    [20, 'b'],
  ] as const)
    time.plan(at, () => seen.push(`${name}@${time.now}`));
  time.pass(25);
  expect([seen, time.now, time.quiet]).toEqual([['a@10', 'b@20'], 25, false]);
  time.pass();
  expect(seen).toEqual(['a@10', 'b@20', 'c@30', 'd@30']);
});

describe('the demo on the bench', () => {
  const d = deriveOnce(islandRun(), BALLROOM_ID)!;
  const bench = () => setUpBench(d, {});
  const view = (b: Bench) => benchView(d, b);

  test('a stomp sends bytes that take their time on the wire, and each box shows its own number', () => {
    const b = bench();
    b.stomp('device:swi', 'B');
    expect(view(b).wire.map((l) => [l.bytes, l.who])).toEqual([
      ['', ''],
      ['C2 04', 'DLY shows 4'],
      ['C3 04', 'REV shows 2.2'],
    ]);
    const messages = b.heard.filter((h) => h.is === 'message');
    expect(messages.map((m) => Math.round(m.at / 10) * 10)).toEqual([640, 1280]);
  });
  test('the relay switches the amp, and letting it go switches it back', () => {
    const b = bench();
    b.stomp('device:swi', 'D');
    expect(b.value('device:hed.channel')).toBe('lead');
    b.stomp('device:swi', 'A');
    expect(b.value('device:hed.channel')).toBe('clean');
  });
  test('a momentary move ends when it is let go, also after another sound was called', () => {
    const b = bench();
    b.stomp('device:swi', 'B');
    b.stomp('device:swi', 'E');
    expect([b.value('device:swi.trim'), b.value('device:swi.loop4')]).toEqual([4, 'on']);
    b.stomp('device:swi', 'A');
    b.stomp('device:swi', 'E', 'release');
    expect([b.value('device:swi.trim'), b.value('device:swi.loop4')]).toEqual([0, 'off']);
  });
  test('a latched move turns over at every stomp; a load clears it', () => {
    const b = bench();
    takeStep(d, b, { does: 'recall', sound: 'sound:11' });
    const stomp = () => takeStep(d, b, { does: 'stomp', device: 'device:swi', switch: 'F' });
    stomp();
    expect([b.value('device:dly.mix'), b.value('device:swi.latch-F')]).toEqual([60, 'on']);
    stomp();
    expect([b.value('device:dly.mix'), b.value('device:swi.latch-F')]).toEqual([34, 'off']);
    stomp();
    takeStep(d, b, { does: 'recall', sound: 'sound:11' });
    expect([b.value('device:dly.mix'), b.value('device:swi.latch-F')]).toEqual([34, 'off']);
  });
  test('a sound in another bank is reached by stomping up or down', () => {
    const b = bench();
    takeStep(d, b, { does: 'recall', sound: 'sound:16' });
    expect([b.value('device:swi.slot'), b.value('device:swi.bank'), view(b).sound?.name]).toEqual([15, 4, 'Last boat']);
    takeStep(d, b, { does: 'recall', sound: 'sound:01' });
    expect(b.value('device:swi.bank')).toBe(1);
  });
  test('a box that loses its power wakes in its program with its contents', () => {
    const b = bench();
    takeStep(d, b, { does: 'recall', sound: 'sound:11' });
    b.actuate('device:dly', 'switch');
    expect(b.value('device:dly.on')).toBe('off');
    b.powerCycle('device:dly');
    expect([b.value('device:dly.program'), b.value('device:dly.on')]).toEqual([6, 'on']);
  });
  test('the floor says what each switch would do, the boxes what changed', () => {
    const b = bench();
    b.stomp('device:swi', 'up');
    const before = momentOf(d, b);
    b.stomp('device:swi', 'C');
    const shown = benchView(d, b, before);
    expect(shown.floor.map((s) => s.label)).toEqual([
      'Waltz clean',
      'Waltz grit',
      'Storm fuzz',
      'Waltz lead',
      'Lift',
      'nothing here',
      'nothing here',
      'nothing here',
      'Bank down',
      'Bank up',
    ]);
    expect(shown.floor[2]!.state).toBe('called');
    expect(shown.boxes.find((x) => x.code === 'SWI')!.says[0]).toEqual({
      text: 'loops · 2 · · 5 6 · 8',
      changed: true,
    });
    expect(shown.boxes.find((x) => x.code === 'MOD')!.outside).toBe(true);
    expect(shown.sound).toEqual({ id: 'sound:07', name: 'Storm fuzz', wrong: [], silentAt: [] });
  });
  test('time is shown to the microsecond', () => expect(clock(4_180_960)).toBe('4.180 960'));
});

describe('chains of boxes', () => {
  const hookup: Hookup = { kind: 'hookup', id: 'hookup:h', name: 'h', settings: {}, hears: [], assumes: [] };
  const lead = (i: number, a: string, b: string): Cable => ({
    kind: 'cable',
    id: `cable:${i}`,
    hookup: hookup.id,
    ends: [`device:${a}` as Ref, `device:${b}` as Ref],
  });
  test('a thru passes bytes on; a box without one ends the chain; the message is read once by each', () => {
    const rig = rigOf([
      makeDevice('midi-controller', 'device:c'),
      makeDevice('midi-thru', 'device:t'),
      makeDevice('stereo-delay', 'device:a', { channel: 1 }),
      makeDevice('stereo-delay', 'device:b', { channel: 1 }),
      hookup,
      lead(1, 'c.midi-out', 't.midi-in'),
      lead(2, 't.thru1', 'a.midi-in'),
      lead(3, 't.thru2', 'b.midi-in'),
    ]);
    const programs = [
      {
        kind: 'program' as const,
        id: 'program:p' as const,
        device: 'device:c' as const,
        memory: 'slots',
        number: 0,
        name: 'p',
        contents: { ctl1: 'open', ctl2: 'open' },
        acts: [{ send: { pc: 9, channel: 1 }, at: 'midi-out' }],
        assigns: [],
      },
    ];
    const b = new Bench({ rig, hookup, programs, found: () => undefined });
    b.stomp('device:c', 'A');
    expect([b.value('device:a.program'), b.value('device:b.program')]).toEqual([9, 9]);
    expect(b.heard.flatMap((h) => (h.is === 'message' ? [...h.reacts] : []))).toEqual(['device:a', 'device:b']);
  });
});

describe('what goes wrong on stage', () => {
  const d = deriveOnce(islandRun(), BALLROOM_ID)!;
  const after = (wrong: (bench: Bench) => void, then = 'recall:sound:04') => {
    const bench = setUpBench(d, {});
    takeStep(d, bench, d.modelled.steps.get('recall:sound:01')!);
    wrong(bench);
    takeStep(d, bench, d.modelled.steps.get(then)!);
    return bench;
  };
  const says = (bench: Bench) => bench.heard.flatMap((h) => (h.is === 'fault' ? [h.what] : []));
  const cable = (from: string, to: string) =>
    [...d.rig.parts.cable.values()].find((c) => c.ends.includes(from as Ref) && c.ends.includes(to as Ref))!;
  test('a MIDI cable is pulled: what hangs behind it hears nothing more', () => {
    const whole = after(() => undefined);
    const [first] = d.control.midi.get('device:swi.midi-out')!;
    const cut = after((b) => b.faults.pull(cable('device:swi.midi-out', `${first!.device}.${first!.jack}`)));
    expect([whole.value('device:rev.program'), cut.value('device:rev.program')]).toEqual([4, 3]);
    expect(says(cut)[0]).toMatch(/^a cable is pulled: SWI midi-out to /);
  });
  test('a contact cable is pulled: the amp falls back to what an open contact means', () => {
    const bench = setUpBench(d, {});
    takeStep(d, bench, d.modelled.steps.get('recall:sound:04')!);
    expect(bench.value('device:hed.channel')).toBe('lead');
    bench.faults.pull(cable('device:swi.ctl1', 'device:hed.channel-switch'));
    expect(bench.value('device:hed.channel')).toBe('clean');
  });
  test('a byte is lost: one message goes astray, the next sound is right again', () => {
    const bench = after((b) => b.wires.loseByte());
    expect(says(bench)).toEqual(['the next byte will be lost', 'C2 is lost']);
    takeStep(d, bench, d.modelled.steps.get('recall:sound:01')!);
    expect(bench.value('device:dly.program')).toBe(0);
  });
  test('a byte arrives wrong: what it says is done, until the next stomp', () => {
    const bench = after((b) => b.wires.corruptByte());
    expect(says(bench)).toEqual(['the next byte will arrive wrong', 'C2 arrives as C3']);
    takeStep(d, bench, d.modelled.steps.get('recall:sound:01')!);
    expect(bench.value('device:dly.program')).toBe(0);
  });
  test('the plugs of a contact and a dead jack are exchanged: the amp no longer follows, and says what was plugged where', () => {
    const [one, other] = [
      cable('device:swi.ctl1', 'device:hed.channel-switch'),
      [...d.rig.parts.cable.values()].find(
        (c) => c.ends.some((e) => e.startsWith('device:hed.')) && !c.ends.some((e) => e.startsWith('device:swi.')),
      )!,
    ];
    const bench = after((b) => b.faults.swap(one, other, 'device:hed'));
    expect(says(bench).filter((w) => w.startsWith('plugged wrong'))).toHaveLength(2);
    expect(bench.value('device:hed.channel')).toBe('clean');
  });
  test('a channel switch that is one off; a spare with factory programs', () => {
    expect(after((b) => b.faults.mischannel('device:dly', 9)).value('device:dly.program')).toBe(0);
    expect(after((b) => b.faults.spare('device:dly')).value('device:dly.mix')).toBe('not known');
    expect(
      after((b) => {
        b.faults.spare('device:nobody' as never);
        b.faults.mischannel('device:cab', 3);
      }).value('device:dly.program'),
    ).toBe(4);
  });
});
