import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import type { Insert, Slot } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import type { Part } from '../../rig/rig.js';
import { tailsOf } from './tails.js';

const slots = (part: Part, change: (slot: Slot) => Slot): Part =>
  part.kind === 'device' ? { ...part, chains: part.chains.map((c) => ({ ...c, slots: c.slots.map(change) })) } : part;

const calls = (part: Part): Part =>
  part.kind === 'sound' ? { ...part, calls: [{ device: 'device:s', memory: 'slots', slot: part.at - 1 }] } : part;

/** What becomes of the delay's repeats when Wide is left for Dry. */
const leaving = (of: {
  boxes: Record<string, string>;
  leads: string[];
  wide: string[];
  dry: string[];
  with?: (part: Part) => Part;
}) => {
  const rig = smallRig({
    boxes: of.boxes,
    leads: of.leads,
    sounds: { Wide: of.wide, Dry: of.dry },
    with: (p) => (of.with ?? ((x) => x))(calls(p)),
  });
  const d = deriveOnce(rig, SMALL)!;
  const trace = (id: Id<'sound'>) => d.compilation.sounds.get(id)!.trace;
  return tailsOf(rig, trace('sound:wide'), trace('sound:dry'));
};

const LOOPED = {
  boxes: { g: 'single-coil', s: 'switcher-8', d: 'tape-echo', f: 'desk' },
  leads: ['g.out>s.in', 's.send1>d.in', 'd.out>s.return1', 's.out>f.ch1'],
  wide: ['d.delay'],
  dry: [],
};
const BEHIND = {
  boxes: { g: 'single-coil', s: 'switcher-8', d: 'stereo-delay', f: 'desk' },
  leads: ['g.out>s.in', 's.out>d.in-l', 'd.out-l>f.ch1', 's.midi-out>d.midi-in'],
  wide: ['d.delay'],
  dry: [],
};
const inLoop = (off: NonNullable<Insert['off']>) => (p: Part) =>
  slots(p, (x) => (x.is === 'insert' && p.id === 'device:s' ? { ...x, off } : x));
const withTails = (tails: boolean) => (p: Part) =>
  slots(p, (x) => (x.is === 'block' && p.id === 'device:d' ? { ...x, tails } : x));

describe('repeats of a delay that is left', () => {
  test('a loop that opens on both sides cuts them', () =>
    expect(leaving(LOOPED)).toEqual({ ring: [], cut: ['device:d.delay'] }));
  test('a loop that only closes its send lets them ring, whatever the pedal would do', () =>
    expect(leaving({ ...LOOPED, with: inLoop('send') })).toEqual({ ring: ['device:d.delay'], cut: [] }));
  test('a loop that only closes its return cuts them', () =>
    expect(leaving({ ...LOOPED, with: inLoop('return') })).toEqual({ ring: [], cut: ['device:d.delay'] }));
  test('a box behind the loops rings on when its bypass keeps its output open', () =>
    expect(leaving({ ...BEHIND, with: withTails(true) })).toEqual({ ring: ['device:d.delay'], cut: [] }));
  test('and is cut when its bypass takes it out at once', () =>
    expect(leaving({ ...BEHIND, with: withTails(false) })).toEqual({ ring: [], cut: ['device:d.delay'] }));
  test('a delay that sounds on is left alone', () =>
    expect(leaving({ ...BEHIND, dry: ['d.delay'] })).toEqual({ ring: [], cut: [] }));
  test('one that goes silent while it loads another program cuts its own repeats, though it is in again', () => {
    const loading = { ...BEHIND, wide: ['d.delay', 'd.program=1'], dry: ['d.delay', 'd.program=2'] };
    const silent =
      (ms: number) =>
      (p: Part): Part =>
        p.kind === 'device' && p.id === 'device:d'
          ? { ...p, memories: p.memories.map((m) => ({ ...m, mutesMs: ms })) }
          : p;
    expect(leaving({ ...loading, with: silent(20) })).toEqual({ ring: [], cut: ['device:d.delay'] });
    expect(leaving({ ...loading, with: silent(0) })).toEqual({ ring: [], cut: [] });
  });
  test('what did not sound leaves nothing behind', () =>
    expect(leaving({ ...LOOPED, wide: [], dry: ['d.delay'] })).toEqual({ ring: [], cut: [] }));
});
