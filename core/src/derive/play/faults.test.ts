import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import type { Slot } from '../../rig/device.js';
import type { Part } from '../../rig/rig.js';
import { trace } from '../../signal/graph/trace.js';
import { benchView, momentOf } from '../views/bench-view.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';
import { asItStands, faultsOf, goWrong, wrongNow, type Fault } from './faults.js';
import { setUpBench, takeStep } from './play.js';

const d = deriveOnce(islandRun(), BALLROOM_ID)!;
const playing = (of: Derived = d) => {
  const bench = setUpBench(of, {});
  return {
    bench,
    happen: (fault: Fault) => goWrong(of, bench, fault),
    look: () => benchView(of, bench),
    call: (n: string) => takeStep(of, bench, { does: 'recall', sound: `sound:${n}` }),
  };
};

describe('what can go wrong', () => {
  const said = faultsOf(d);
  test('every cable, every box that needs a supply, every box that listens', () => {
    expect(said.filter((f) => f.fault.fault === 'pull')).toHaveLength(42);
    expect(said.filter((f) => f.group === 'Supply').map((f) => f.text)).toEqual(
      expect.arrayContaining(['Stereo reverb loses its supply', 'Two-channel valve head 50 W loses its supply']),
    );
    expect(said.filter((f) => f.group === 'Supply').map((f) => f.text)).not.toContain('Closed 2×12 loses its supply');
    expect(said.filter((f) => f.fault.fault === 'channel').map((f) => f.text)).toEqual([
      'Stereo modulation: its channel switch is one off',
      'Stereo delay: its channel switch is one off',
      'Stereo reverb: its channel switch is one off',
    ]);
  });
  test('each can happen, after any sound, and the bench still answers', () => {
    for (const { fault, text } of said) {
      const { happen, look, call } = playing();
      call('02');
      happen(fault);
      call('04');
      expect([text, look().sound?.id]).toEqual([
        text,
        fault.fault === 'dark' && fault.devices.includes('device:swi') ? 'sound:02' : 'sound:04',
      ]);
    }
  });
  test('an output of a supply takes all with it that it feeds, over a lead that joins two of them as well', () => {
    const rig = smallRig({
      boxes: {
        g: 'single-coil',
        a: 'low-drive',
        b: 'analog-delay',
        w: 'powered-speaker',
        p: 'supply-5',
        l: 'bridging-lead',
      },
      leads: ['g.out>a.in', 'a.out>b.in', 'b.out>w.in', 'p.out1>a.dc', 'p.out2>l.in1', 'p.out3>l.in2', 'l.out>b.dc'],
      sounds: { One: ['a.overdrive'] },
    });
    const supply = faultsOf(deriveOnce(rig, SMALL)!)
      .filter((f) => f.group === 'Supply')
      .map((f) => f.text);
    expect(supply).toEqual(
      expect.arrayContaining(['P out1 fails: A goes dark', 'P out2 fails: B goes dark', 'P out3 fails: B goes dark']),
    );
    expect(supply.some((t) => t.startsWith('P out4'))).toBe(false);
  });
});

describe('a box without supply', () => {
  test('hears nothing and says so in the monitor; what stands behind it on its thru hears nothing either', () => {
    const { happen, look, call } = playing();
    happen({ fault: 'dark', devices: ['device:dly'] });
    call('02');
    const wire = look().wire.filter((w) => w.kind !== 'stomp');
    expect(wire.map((w) => [w.bytes, w.who])).toEqual([
      ['', ''],
      ['C2 04', 'nobody'],
      ['C3 04', 'nobody'],
    ]);
    expect(look().boxes.find((b) => b.code === 'DLY')!.dark).toBe(true);
  });
  test('lets nothing through, and the sound is gone at the end of the chain', () => {
    const { bench, happen, call } = playing();
    call('02');
    const before = momentOf(d, bench);
    happen({ fault: 'dark', devices: ['device:dly'] });
    expect(benchView(d, bench, before)).toMatchObject({
      audio: expect.arrayContaining(['Nothing is heard any more at Stage.']),
      sound: { silentAt: ['Front of house'] },
    });
  });
  test('wakes with its supply, hears again, and nothing is left to put right', () => {
    const { bench, happen, look, call } = playing();
    happen({ fault: 'dark', devices: ['device:dly'] });
    const [wrong] = look().wrong;
    expect(wrong).toEqual({ text: 'Stereo delay is dark', right: { fault: 'light', devices: ['device:dly'] } });
    happen(wrong!.right);
    call('02');
    expect(look().wrong).toEqual([]);
    expect(bench.value('device:dly.program')).toBe(4);
  });
  test('its relays fall open: an amp on a closed contact changes its channel', () => {
    const { bench, happen, call } = playing();
    call('04');
    expect(bench.value('device:hed.channel')).toBe('lead');
    happen({ fault: 'dark', devices: ['device:swi'] });
    expect(bench.value('device:hed.channel')).toBe('clean');
  });
  test('a pedal passes while a mechanical true bypass has it out; switched on, or buffered, it does not', () => {
    const bypass =
      (how: 'true' | 'buffered') =>
      (p: Part): Part =>
        p.kind === 'device' && p.id === 'device:a'
          ? {
              ...p,
              chains: p.chains.map((c) => ({
                ...c,
                slots: c.slots.map((s): Slot => (s.is === 'block' ? { ...s, bypass: how } : s)),
              })),
            }
          : p;
    const heard = (how: 'true' | 'buffered', on: 'on' | 'off') => {
      const rig = smallRig({
        boxes: { g: 'single-coil', a: 'low-drive', w: 'powered-speaker' },
        leads: ['g.out>a.in', 'a.out>w.in'],
        sounds: { One: ['a.overdrive'], Two: [] },
        with: bypass(how),
      });
      const of = deriveOnce(rig, SMALL)!;
      const { bench, happen } = playing(of);
      if (bench.value('device:a.on') !== on) bench.stomp('device:a', 'switch');
      expect(bench.value('device:a.on')).toBe(on);
      happen({ fault: 'dark', devices: ['device:a'] });
      return trace(asItStands(of, bench).wiring, bench.state()).reaches.length > 0;
    };
    expect([heard('true', 'off'), heard('true', 'on'), heard('buffered', 'off')]).toEqual([true, false, false]);
  });
  test('a byte that it was to send is not sent any more', () => {
    const { bench, happen, look } = playing();
    bench.hurry(0);
    bench.stomp('device:swi', 'B');
    happen({ fault: 'dark', devices: ['device:swi'] });
    bench.hurry();
    bench.wait(1e6);
    expect(look().wire.filter((w) => w.bytes)).toEqual([]);
  });
});

describe('cables', () => {
  test('one that is pulled is named with a way to plug it in again, and then all is as before', () => {
    const { bench, happen } = playing();
    happen({ fault: 'pull', cable: d.rig.parts.cable.keys().next().value! });
    expect(asItStands(d, bench)).not.toBe(d.anatomy);
    expect(wrongNow(d, bench)[0]!.text).toBe('No cable from GSC out to WLS in');
    happen(wrongNow(d, bench)[0]!.right);
    expect(asItStands(d, bench)).toBe(d.anatomy);
  });
  test('two that were exchanged are put right one after the other', () => {
    const { bench, happen } = playing();
    happen(faultsOf(d).find((f) => f.text === 'SWI: the plugs in send1 and send2 are exchanged')!.fault);
    expect(wrongNow(d, bench).map((w) => w.text)).toEqual([
      'No cable from SWI send1 to CMP in',
      'No cable from SWI send2 to OFZ in',
    ]);
    for (const { right } of wrongNow(d, bench)) happen(right);
    expect(wrongNow(d, bench)).toEqual([]);
    expect(asItStands(d, bench)).toBe(d.anatomy);
  });
  test('a contact that is plugged in again is read by the box at its far end', () => {
    const { bench, happen, call } = playing();
    const relay = [...d.rig.parts.cable.values()].find(
      (c) => c.ends.includes('device:swi.ctl1') && c.hookup === BALLROOM_ID,
    )!;
    call('04');
    happen({ fault: 'pull', cable: relay.id });
    expect(bench.value('device:hed.channel')).toBe('clean');
    happen({ fault: 'plug', cable: relay.id });
    expect(bench.value('device:hed.channel')).toBe('lead');
  });
});
