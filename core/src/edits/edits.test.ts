import { after } from '../../testing/after.js';
import { randomRig } from '../../testing/random-rig.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { makeDevice } from '../catalogue/make.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { all, newRig, partOf, rigOf, type Rig } from '../rig/rig.js';
import type { Ref } from '../rig/ids.js';
import { connect, notOffered, offers } from './cables.js';
import { addDevice, removeDevice } from './devices.js';
import { addSound, caughtUp, freeCall, giveSlots, removeSound } from './sounds.js';
import { carryOutWiring, planWiring, type School } from './wire.js';

const kit = (...keys: string[]): Rig =>
  keys.reduce((rig, key, i) => after(rig, addDevice(rig, key, `device:d${i}`)), newRig('Test'));
const demo = islandRun();

describe('wire it for me', () => {
  const wired = (rig: Rig, school: School): Rig =>
    after(
      rig,
      carryOutWiring(rig, 'hookup:main', planWiring(rig, school), (i) => `cable:c${i}`),
    );
  const sounding = (rig: Rig) =>
    deriveOnce(after(rig, addSound(rig, 'sound:s', 'One')), 'hookup:main')!.compilation.sounds.get('sound:s')!;
  test.each<[School, string[]]>([
    ['straight', ['single-coil', 'tuner', 'compressor', 'low-drive', 'one-channel-amp', 'cab-112']],
    ['loops', ['single-coil', 'wireless', 'switcher-8', 'compressor', 'fuzz', 'stereo-delay', 'valve-head', 'cab-212']],
    [
      'four cables',
      [
        'single-coil',
        'switcher-8',
        'compressor',
        'fuzz',
        'stereo-modulation',
        'stereo-reverb',
        'valve-head',
        'cab-212',
        'cab-mic',
        'desk',
      ],
    ],
    ['four cables', ['single-coil', 'modeller', 'valve-head', 'cab-212']],
    ['straight', ['bass', 'compressor', 'preamp-di', 'desk']],
  ])('%s with %p: it sounds, nothing is left over, each step has its reason', (school, keys) => {
    const rig = kit(...keys);
    const plan = planWiring(rig, school);
    expect(plan.notes).toEqual([]);
    for (const step of plan.steps) expect(step.why).toMatch(/\w{3}/);
    const compiled = sounding(wired(rig, school));
    expect(compiled.trace.reaches.filter((r) => r.end.end.is !== 'tuner').length).toBeGreaterThan(0);
    expect(compiled.problems.filter((p) => p.is === 'silent')).toEqual([]);
  });
  test('four cables: the modulation comes after the preamp, the compressor before it', () => {
    const steps = planWiring(
      kit('single-coil', 'switcher-8', 'stereo-modulation', 'compressor', 'valve-head', 'cab-212'),
      'four cables',
    ).steps.map((s) => `${s.from.slice(7)}>${s.to.slice(7)}`);
    expect(steps).toEqual(
      expect.arrayContaining([
        'd1.send1>d3.in',
        'd1.send2>d4.in',
        'd4.send>d1.return2',
        'd1.send3>d2.in-l',
        'd1.out>d4.return',
      ]),
    );
  });
  test('four cables with a modeller: what repeats stands behind it, the rest in front', () => {
    const steps = planWiring(
      kit('single-coil', 'modeller', 'wah', 'stereo-reverb', 'valve-head', 'cab-212'),
      'four cables',
    ).steps.map((s) => `${s.from.slice(7)}>${s.to.slice(7)}`);
    expect(steps).toEqual(
      expect.arrayContaining(['d0.out>d2.in', 'd2.out>d1.in', 'd1.out-l>d3.in-l', 'd3.out-l>d4.return']),
    );
  });
  test('what is missing is said, and nothing is plugged', () => {
    expect(planWiring(kit('compressor'), 'straight')).toEqual({
      steps: [],
      notes: ['There is no instrument in the kit. Add a guitar or a bass first.'],
    });
    expect(planWiring(kit('single-coil', 'compressor'), 'loops').notes[0]).toContain('no loop switcher');
    expect(planWiring(kit('single-coil', 'one-channel-amp'), 'straight').notes[0]).toContain(
      'never run without its load',
    );
  });
  test('more boxes than loops: those left over are named', () => {
    expect(
      planWiring(
        kit(
          'single-coil',
          'switcher-4',
          'wah',
          'compressor',
          'fuzz',
          'low-drive',
          'boost',
          'one-channel-amp',
          'cab-112',
        ),
        'loops',
      ).notes,
    ).toEqual(['No loop is left for Boost.']);
  });
});

describe('cables', () => {
  test('only jacks that fit are offered, the best first, a taken one last', () => {
    const list = offers(demo, BALLROOM_ID, 'device:mod.out-r');
    expect(list[0]!.taken).toBe(false);
    const kinds = list.map((o) =>
      partOf(demo, o.jack.slice(0, o.jack.indexOf('.')) as `device:${string}`)!.jacks.find(
        (j) => j.id === o.jack.slice(o.jack.indexOf('.') + 1),
      )!,
    );
    expect(kinds.every((j) => j.kind === 'audio' && j.poles.tip === 'in' && j.level !== 'speaker')).toBe(true);
    expect(list.findIndex((o) => o.taken)).toBeGreaterThan(0);
  });
  test('a speaker output is offered a speaker load only', () => {
    const rig = after(demo, { put: [], remove: ['cable:b25'] });
    expect(offers(rig, BALLROOM_ID, 'device:hed.speaker').map((o) => o.jack)).toEqual(['device:cab.in']);
  });
  test('what hangs in a loop is offered the return of that loop first, over however many boxes', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', s: 'switcher-4', d: 'low-drive', f: 'fuzz', h: 'one-channel-amp' },
      leads: ['g.out>s.in', 's.send2>d.in', 'd.out>f.in'],
    });
    expect(offers(rig, SMALL, 'device:f.out')[0]).toMatchObject({
      jack: 'device:s.return2',
      taken: false,
      why: 'comes back to the loop in which it hangs',
    });
  });
  test('from a send a box that is not wired yet comes before one that is', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', s: 'switcher-4', d: 'low-drive', f: 'fuzz' },
      leads: ['g.out>s.in', 's.send1>d.in', 'd.out>s.return1'],
    });
    const list = offers(rig, SMALL, 'device:s.send2');
    expect(list[0]).toMatchObject({ jack: 'device:f.in', why: expect.stringContaining('not wired yet') });
    expect(list.find((o) => o.jack === 'device:d.in')).toMatchObject({ taken: true });
  });
  test('offers may be asked from either end of a cable', () => {
    const rig = smallRig({ boxes: { g: 'single-coil', d: 'low-drive' }, leads: [] });
    expect(offers(rig, SMALL, 'device:g.out').map((o) => o.jack)).toEqual(['device:d.in']);
    expect(offers(rig, SMALL, 'device:d.in').map((o) => o.jack)).toEqual(['device:g.out']);
    expect(offers(rig, SMALL, 'device:d.nothing')).toEqual([]);
  });
  test('every jack of the same kind is offered or refused with a reason, never both', () => {
    for (const device of all(demo, 'device')) {
      for (const { id, kind } of device.jacks) {
        const from = `${device.id}.${id}` as Ref;
        const [yes, no] = [offers(demo, BALLROOM_ID, from).map((o) => o.jack), notOffered(demo, from)];
        const alike = all(demo, 'device')
          .flatMap((d) => d.jacks.filter((j) => j.kind === kind).map((j) => `${d.id}.${j.id}`))
          .filter((r) => r !== from);
        expect([...yes, ...no.map((n) => n.jack)].sort()).toEqual(alike.sort());
        expect(no.every((n) => n.why.length > 5)).toBe(true);
      }
    }
  });
  test('the reasons: two outputs, the box itself, a speaker output into a pedal, a pedal into a loudspeaker', () => {
    const why = (from: Ref, to: Ref) => notOffered(demo, from).find((n) => n.jack === to)?.why;
    expect(why('device:cmp.out', 'device:low.out')).toBe('both give out');
    expect(why('device:cmp.in', 'device:low.in')).toBe('both take in');
    expect(why('device:cmp.out', 'device:cmp.in')).toBe('the same box: a signal fed back into itself');
    expect(why('device:hed.speaker', 'device:cmp.in')).toBe('the power of a speaker output would ruin it');
    expect(why('device:cmp.out', 'device:cab.in')).toBe('a loudspeaker wants a power amp');
  });
  test('plugging into a taken jack pulls what was there, in one change', () => {
    const rig = after(demo, connect(demo, BALLROOM_ID, 'cable:new', 'device:mod.out-r', 'device:hed.return'));
    expect(partOf(rig, 'cable:b24')).toBeUndefined();
    expect(partOf(rig, 'cable:new')!.ends).toEqual(['device:mod.out-r', 'device:hed.return']);
  });
});

describe('taking things away names everything that hangs on them', () => {
  test('every box of the demo can leave, and what is left can be saved', () => {
    for (const { id } of all(demo, 'device')) {
      const rig = after(demo, removeDevice(demo, id));
      expect(
        JSON.stringify([...all(rig, 'sound'), ...all(rig, 'cable'), ...all(rig, 'move'), ...all(rig, 'program')]),
      ).not.toContain(`"${id}.`);
    }
  });
  test('every box of random rigs can leave, one after the other', () => {
    for (let seed = 1; seed <= 30; seed += 1) {
      let { rig } = randomRig(seed);
      for (const { id } of all(rig, 'device')) rig = after(rig, removeDevice(rig, id));
      expect(all(rig, 'cable')).toEqual([]);
    }
  });
  test('a derived sound keeps what it took over when its parent leaves', () => {
    const derived = after(demo, addSound(demo, 'sound:d', 'Derived', 'lead', 'sound:04'));
    const rig = after(derived, removeSound(derived, 'sound:04'));
    expect(partOf(rig, 'sound:d')!.wants).toEqual(partOf(demo, 'sound:04')!.wants);
    expect(partOf(rig, 'sound:d')!.parent).toBeUndefined();
    expect(JSON.stringify(all(rig, 'song'))).not.toContain('sound:04');
  });
  test('taking away what is not there changes nothing', () => {
    expect(removeDevice(demo, 'device:none')).toEqual({ put: [], remove: [] });
    expect(removeSound(demo, 'sound:none')).toEqual({ put: [], remove: [] });
  });
});

describe('slots', () => {
  test('a new sound gets the first free one; sounds made before there was a controller get theirs later', () => {
    expect(freeCall(demo)).toEqual({ device: 'device:swi', memory: 'slots', slot: 16 });
    const bare = after(newRig('x'), addSound(newRig('x'), 'sound:a', 'A'));
    const late = after(bare, addDevice(bare, 'switcher-4', 'device:s'));
    expect(partOf(after(late, giveSlots(late)), 'sound:a')!.calls).toEqual([
      { device: 'device:s', memory: 'slots', slot: 0 },
    ]);
  });
  test('without a controller a sound is stored nowhere', () =>
    expect(freeCall(rigOf([makeDevice('boost', 'device:b')]))).toBeUndefined());
});

describe('sounds that were made before their boxes were wired', () => {
  const boxes = { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', amp: 'combo-two-channel' };
  const leads = ['g.out>d.in-l', 'd.out-l>amp.in', 'c.midi-out>d.midi-in'];
  const behind = smallRig({ boxes, leads, sounds: {} });
  const before = smallRig({ boxes, leads: [], sounds: {} });
  const made = (rig: Rig): Rig => after(rig, addSound(rig, 'sound:a', 'A'));
  const wired = (rig: Rig): Rig => after(rig, { put: all(behind, 'cable'), remove: [] });
  test('stand as if they had been made behind it', () => {
    const early = wired(made(before));
    expect(partOf(early, 'sound:a')!.wants).toEqual([]);
    const late = after(early, caughtUp(early));
    expect(partOf(late, 'sound:a')).toEqual(partOf(made(wired(before)), 'sound:a'));
    expect(caughtUp(late).put).toEqual([]);
  });
  test('what a sound says of a channel stays, and one that is called by nothing on purpose stays so', () => {
    const rig = made(wired(before));
    const said = after(rig, {
      put: [{ ...partOf(rig, 'sound:a')!, wants: [{ stage: 'device:amp.lead', is: 'in' }] }],
      remove: [],
    });
    expect(caughtUp(said).put).toEqual([]);
    const uncalled = { ...partOf(rig, 'sound:a')!, id: 'sound:b' as const, name: 'B', at: 9, calls: [] };
    expect(caughtUp(after(rig, { put: [uncalled], remove: [] })).put).toEqual([]);
  });
});
