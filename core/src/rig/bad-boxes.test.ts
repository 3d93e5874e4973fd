import { SMALL, smallRig } from '../../testing/small-rig.js';
import { blankBox } from '../catalogue/box-parts.js';
import { makeDevice } from '../catalogue/make.js';
import { apply } from '../change/apply.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import type { Chain, Device } from './device.js';
import { newRig, type Part } from './rig.js';

const refused = (...parts: readonly unknown[]): string => {
  const applied = apply(newRig('R'), { put: parts as readonly Part[], remove: [] });
  return applied.ok ? '' : applied.error.map((e) => `${e.where}: ${e.wrong} ${e.would}`).join(' | ');
};
const box = (more: Partial<Device>): Device => ({ ...blankBox('device:x'), ...more });
const path = (more: Partial<Chain>): Partial<Device> => ({
  chains: [{ id: 'path', from: [{ at: 'in' }], slots: [], to: [{ at: 'out' }], ...more }],
});

describe('a box that makes no sense is refused with what, where and what would do', () => {
  test.each<[string, Partial<Device>, RegExp]>([
    [
      'a chain that names a jack that is not there',
      path({ to: [{ at: 'aux' }] }),
      /chains\.path: "aux" is not a jack of this device\. Use one of in, out/,
    ],
    [
      'a fork without arms',
      path({ slots: [{ is: 'fork', id: 'split', arms: [] }] }),
      /chains\.path\.split: The fork "split" has no arms\. Give it an arm/,
    ],
    [
      'an arm that asks for a control that is not there',
      path({
        slots: [{ is: 'fork', id: 'f', arms: [{ id: 'a', slots: [], when: [{ control: 'channel', in: ['a'] }] }] }],
      }),
      /chains\.path\.f\.a: "channel" is not a control/,
    ],
    [
      'a stage that asks for a jack that is not there',
      path({ slots: [{ is: 'block', id: 'eq', stage: 'eq', on: [{ jack: 'pedal', plugged: true }] }] }),
      /"pedal" is not a jack/,
    ],
    ['a gate of a whole chain on nothing', path({ when: [{ control: 'mode', in: ['x'] }] }), /"mode" is not a control/],
    [
      'a tap that asks for a control that is not there',
      path({ from: [{ at: 'in', when: [{ control: 'pad', in: ['on'] }] }] }),
      /"pad" is not a control/,
    ],
    [
      'two jacks of one name',
      { jacks: [...blankBox('device:x').jacks, blankBox('device:x').jacks[0]!] },
      /jacks: "in" is there twice\. Give each its own name/,
    ],
    [
      'two stages of one name',
      path({
        slots: [
          { is: 'block', id: 'eq', stage: 'eq' },
          { is: 'block', id: 'eq', stage: 'boost' },
        ],
      }),
      /"eq" is there twice/,
    ],
    [
      'an order by a control that is not there',
      path({ order: 'order' }),
      /chains\.path\.order: "order" is not a control/,
    ],
    [
      'programs that hold a control that is not there',
      {
        controls: [{ id: 'program', domain: { min: 0, max: 9, unit: '' }, powerUp: 'left', use: 'sound' }],
        memories: [
          {
            id: 'm',
            control: 'program',
            stores: ['mix'],
            size: 10,
            shows: { first: 0 },
            gapMs: 0,
            mutesMs: 0,
            again: 'reloads',
          },
        ],
      },
      /"mix" is not a control/,
    ],
    [
      'an act on a control that is not there',
      { actuators: [{ id: 'a', by: { foot: 'a', gesture: 'press' }, acts: [{ control: 'on', set: 'on' }] }] },
      /actuators\.a: "on" is not a control/,
    ],
    [
      'a power-up value outside the range',
      { controls: [{ id: 'on', domain: { values: ['off', 'on'] }, powerUp: { at: 'maybe' }, use: 'sound' }] },
      /"maybe" is outside its range\. Use off, on/,
    ],
  ])('%s', (_, more, says) => expect(refused(box(more))).toMatch(says));

  test('a box of the same kind that makes sense is taken', () =>
    expect(refused(box(path({ slots: [{ is: 'fork', id: 'f', arms: [{ id: 'a', slots: [] }] }] })))).toBe(''));
  test('a catalogue box by hand with nonsense in it is refused by the file reader with its path', () => {
    const rig = apply(newRig('R'), { put: [makeDevice('low-drive', 'device:d')], remove: [] });
    const text = rig.ok ? writeRigFile(rig.value.rig).replace('"stage": "overdrive"', '"stage": "wobble"') : '';
    const read = readRigFile(text);
    expect(read.ok ? '' : read.error[0]).toMatchObject({
      where: 'devices[0].chains[0].slots[0].stage',
      wrong: expect.stringContaining('"wobble" is not one of tuner'),
    });
  });
});

describe('what is odd but can be built is a finding, not a refusal', () => {
  const findings = (boxes: Record<string, string>, leads: readonly string[], change?: (p: Part) => Part) =>
    deriveOnce(smallRig({ boxes, leads, ...(change ? { with: change } : {}) }), SMALL)!.judgement;
  test('a ring of normals: two chains that close on each other while nothing is plugged in', () => {
    const ring = (p: Part): Part =>
      p.kind === 'device' && p.id === 'device:d'
        ? {
            ...p,
            jacks: [
              ...p.jacks,
              { id: 'send', kind: 'audio', connector: '6.35 TS', poles: { tip: 'out' } },
              { id: 'return', kind: 'audio', connector: '6.35 TS', poles: { tip: 'in' } },
            ],
            chains: [
              ...p.chains,
              {
                id: 'there',
                from: [{ at: 'send' }],
                slots: [],
                to: [{ at: 'return' }],
                when: [{ jack: 'return', plugged: false }],
              },
              {
                id: 'back',
                from: [{ at: 'return' }],
                slots: [],
                to: [{ at: 'send' }],
                when: [{ jack: 'send', plugged: false }],
              },
            ],
          }
        : p;
    const judged = findings(
      { g: 'single-coil', d: 'low-drive', w: 'powered-speaker' },
      ['g.out>d.in', 'd.out>w.in'],
      ring,
    );
    expect(judged.faults).toEqual([]);
    expect(judged.findings.map((f) => f.code)).toContain('wire.ring');
  });
  test('a cable between plugs of which neither gives', () => {
    const judged = findings({ g: 'single-coil', d: 'low-drive', f: 'fuzz', w: 'powered-speaker' }, [
      'g.out>w.in',
      'd.in>f.in',
    ]);
    expect(judged.faults).toEqual([]);
    expect(judged.findings.map((f) => f.code)).toContain('wire.direction');
  });
  test('a cable whose plugs go into neither jack: said with the end, and the right cable is one click away', () => {
    const judged = findings(
      { g: 'single-coil', d: 'low-drive', w: 'powered-speaker' },
      ['g.out>d.in', 'd.out>w.in'],
      (p) => (p.kind === 'cable' && p.id === 'cable:1' ? { ...p, plugs: ['XLR', 'XLR'] } : p),
    );
    const found = judged.findings.find((f) => f.code === 'wire.plug')!;
    expect(found.why).toContain('An XLR plug does not go into the 6.35 TS jack out of');
    expect(judged.remediesOf(found)).toMatchObject([{ by: 'program', promise: 'clears' }]);
  });
});
