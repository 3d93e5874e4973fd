import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { setUpBench, takeStep } from '../play/play.js';
import { deriveOnce } from '../steps/deriver.js';
import { benchView } from './bench-view.js';
import { latchedIn } from './latched.js';

const rig = smallRig({
  boxes: { g: 'single-coil', h: 'hold', s: 'switcher-4', l: 'looper', a: 'combo' },
  leads: ['g.out>h.in', 'h.out>s.in', 's.send1>l.in', 'l.out>s.return1', 's.out>a.in'],
  sounds: { Loop: ['s.loop1=on'], Plain: ['s.loop1=off'] },
});
const d = deriveOnce(rig, SMALL)!;

describe('what a foot holds until it lets go', () => {
  test('in front of everything it rings on in every sound; in a loop only where the loop is on', () =>
    expect(latchedIn(d)).toEqual([
      { control: 'device:h.hold', text: 'H hold', rings: ['sound:loop', 'sound:plain'], cut: [] },
      { control: 'device:l.loop', text: 'L loop', rings: ['sound:loop'], cut: ['sound:plain'] },
    ]));
  test('no sound asks for it, and no proof rests on it', () => {
    expect(d.modelled.system.variables.map((v) => v.id)).not.toContain('device:h.hold');
    expect([...d.answers.values()].flatMap((a) => a.hands)).not.toContainEqual(
      expect.objectContaining({ control: 'device:h.hold' }),
    );
  });
  test('on the bench it stays held when another sound is called, and it is said whether it is heard', () => {
    const bench = setUpBench(d, {});
    bench.stand('device:s.output', 'open');
    const held = () => benchView(d, bench).held;
    expect(held()).toEqual([]);
    takeStep(d, bench, { does: 'foot', device: 'device:h', actuator: 'switch' });
    takeStep(d, bench, { does: 'foot', device: 'device:l', actuator: 'switch' });
    bench.stand('device:s.loop1', 'off');
    expect(held()).toEqual(['H hold on', 'L loop plays, and not heard: its way out is closed']);
    bench.stand('device:s.loop1', 'on');
    expect(held()).toEqual(['H hold on', 'L loop plays']);
    takeStep(d, bench, { does: 'foot', device: 'device:h', actuator: 'switch' });
    expect(held()).toEqual(['L loop plays']);
  });
});
