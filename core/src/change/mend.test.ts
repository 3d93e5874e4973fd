import { islandRun } from '../demo/island-run.js';
import { partOf, type Part } from '../rig/rig.js';
import { deltaOf } from './delta.js';
import { asNote, mendable, mended } from './mend.js';

const rig = islandRun();
const device = partOf(rig, 'device:cmp')!;
const delta = deltaOf(rig, {
  put: [
    {
      ...device,
      name: 'x'.repeat(130),
      jacks: device.jacks.map((j, i) => (i === 0 ? { ...j, id: 'y'.repeat(70) } : j)),
    },
  ],
  remove: [],
});
const refusal = (where: string, part = 'device:cmp') => [
  { code: 'shape', part, where, wrong: 'Too long.', would: 'Shorten it.' },
];

describe('the text at which a change failed', () => {
  test.each([
    ['name', 'name'],
    ['put[0].name', 'name'],
    ['put[3].jacks[0].id', 'jacks 0 id'],
  ])('%s is found', (where, path) => {
    const found = mendable({ delta, refusals: refusal(where) })!;
    expect([found.part, found.path.join(' ')]).toEqual(['device:cmp', path]);
    expect(found.text).toMatch(/^[xy]+$/);
  });
  test.each([
    ['nothing that is a text', refusal('jacks')],
    ['another part', refusal('name', 'device:dly')],
    ['no place', [{ code: 'server', wrong: 'It failed.', would: '' }]],
    ['a place that is not there', refusal('jacks[99].id')],
  ])('%s cannot be typed otherwise', (_, refusals) => {
    expect(mendable({ delta, refusals })).toBeUndefined();
  });
  test('typed otherwise everything else of the change stays as it was meant', () => {
    const once = mended(delta, mendable({ delta, refusals: refusal('jacks[0].id') })!, 'in');
    const after = once.get('device:cmp')!.after as Extract<Part, { kind: 'device' }>;
    expect(after.jacks).toEqual(device.jacks);
    expect(after.name).toBe('x'.repeat(130));
    expect(
      mended(once, mendable({ delta: once, refusals: refusal('name') })!, 'Squeezer').get('device:cmp')!.after,
    ).toEqual({ ...device, name: 'Squeezer' });
  });
  test('as a note it is whole and fits, whatever it was', () => {
    const note = asNote('logEntry:x', '2026-01-01', `half \ud83d ${'z'.repeat(30_000)}`);
    expect(note.kind === 'logEntry' && [note.text.isWellFormed(), note.text.length]).toEqual([true, 20_000]);
  });
});
