import { after } from '../../../testing/after.js';
import { askCbc } from '../../../testing/cbc.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { islandRun, BALLROOM_ID } from '../../demo/island-run.js';
import { newRig, ABOUT, all, thePart, type Part, type Rig } from '../../rig/rig.js';
import type { Stock } from '../../rig/show.js';
import { deriveOnce } from '../steps/deriver.js';
import { cutList, cutsAsked, flagsOf, leadsIn, planAllCuts, shoppingFor } from './leads.js';

const ABOUT_PART = thePart(newRig('Small'), ABOUT);
const stocked = (rig: Rig, stock: readonly Stock[]): Rig => after(rig, { put: [{ ...ABOUT_PART, stock }], remove: [] });
const rig = smallRig({
  boxes: { g: 'single-coil', f: 'fuzz', a: 'combo' },
  leads: ['g.out>f.in 6', 'f.out>a.in 0.6'],
  with: (p: Part) => (p.kind === 'cable' ? { ...p, byHand: true } : p),
});
const asked = (of: Rig) => {
  const leads = leadsIn(deriveOnce(of, SMALL)!);
  const cuts = cutsAsked(of, leads);
  const list = cutList(leads, cuts, planAllCuts(cuts, askCbc));
  return { leads, list, buy: shoppingFor(leads, list) };
};

test('leads that are made by hand: cut of what stands on reels, what is missing is bought, plugs are counted', () => {
  const none = asked(rig);
  expect(none.list).toEqual([
    expect.objectContaining({ of: 'instrument', reels: [], without: [expect.anything(), expect.anything()] }),
  ]);
  // 6.04 and 0.64 m, by hand.
  expect(none.buy).toEqual([
    { what: '6.68 m of instrument cable', many: 1 },
    { what: '6.35 TS plug for instrument cable', many: 4 },
  ]);
  const { list, buy } = asked(
    stocked(rig, [
      { of: 'instrument', m: 10 },
      { of: 'instrument', m: 7 },
      { of: 'MIDI', m: 3 },
    ]),
  );
  expect(list[0]).toMatchObject({ reels: [{ m: 7, left: 0.32 }], without: [], offcuts: 0.32, isProved: true });
  expect(buy).toEqual([{ what: '6.35 TS plug for instrument cable', many: 4 }]);
});

test('every lead of the demo has its jacks, its plugs and its kind, and two flags', () => {
  const d = deriveOnce(islandRun(), BALLROOM_ID)!;
  const leads = leadsIn(d);
  const here = all(d.rig, 'cable').filter((c) => c.hookup === BALLROOM_ID);
  expect(leads).toHaveLength(here.filter((c) => !c.ends.some((end) => end.endsWith('.air'))).length);
  expect(leads.find((l) => l.to === 'MOD midi-in')).toMatchObject({
    kind: 'MIDI',
    plugs: ['DIN-5', 'DIN-5'],
    is: 'to buy',
  });
  const flags = flagsOf(leads);
  expect(flags).toHaveLength(leads.length * 2);
  expect(flags.slice(0, 2).map(({ key: _, ...f }) => f)).toEqual([
    { big: 'GSC → WLS', here: 'GSC out', there: 'WLS in' },
    { big: 'GSC → WLS', here: 'WLS in', there: 'GSC out' },
  ]);
  expect(flagsOf([{ ...leads[0]!, label: '12' }]).map((f) => f.big)).toEqual(['12', '12']);
});

test('a mains lead is never made at home, whatever is written of it', () => {
  const wired = smallRig({
    boxes: { s: 'mains-strip', a: 'combo' },
    leads: ['s.socket1>a.mains'],
    with: (p: Part) => (p.kind === 'cable' ? { ...p, byHand: true, m: 2 } : p),
  });
  expect(asked(wired).leads.map((l) => [l.kind, l.is])).toEqual([['mains', 'to buy']]);
});
