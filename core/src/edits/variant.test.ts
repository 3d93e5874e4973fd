import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { makeDevice } from '../catalogue/make.js';
import { all, partOf } from '../rig/rig.js';
import { derivedName } from './sounds.js';
import { instrumentsOf, variantFor, variantsToMake } from './variant.js';

const humbucker = makeDevice('humbucker', 'device:hbk', { code: 'HBK' });
const demo = after(islandRun(), { put: [{ ...humbucker, at: 99 }], remove: [] });
const song = all(demo, 'song')[0]!;
const rig = after(demo, { put: [{ ...song, instrument: 'device:hbk' }], remove: [] });
const called = song.cues.flatMap((c) => ('sound' in c.call ? [c.call.sound] : []))[0]!;
const sound = partOf(rig, called)!;

describe('a sound for another instrument', () => {
  const variant = variantFor(rig, 'sound:new', sound, partOf(rig, 'device:hbk')!);
  const made = after(rig, variant.edit);
  test('is derived from it, has a slot of its own, and comes back as it does', () => {
    expect(variant.sound).toMatchObject({ name: `${sound.name} HBK`, parent: sound.id, wants: [] });
    expect(partOf(made, 'sound:new')!.calls).not.toEqual(sound.calls);
    const answers = deriveOnce(made, BALLROOM_ID)!.answers;
    expect(answers.get('sound:new')!.is).toBe(answers.get(sound.id)!.is);
  });
  test('songs that are played with the instrument call it, others stay', () => {
    const callsOf = (id: typeof song.id) =>
      partOf(made, id)!.cues.flatMap((c) => ('sound' in c.call ? [c.call.sound] : []));
    expect(variant.songs.map((s) => s.id)).toEqual([song.id]);
    expect(callsOf(song.id)).toContain('sound:new');
    expect(callsOf(song.id)).not.toContain(sound.id);
    for (const other of all(rig, 'song').slice(1)) expect(partOf(made, other.id)).toEqual(other);
  });
  test('is offered once for each instrument but the first', () => {
    expect(variantsToMake(rig, sound)).toEqual(instrumentsOf(rig).slice(1));
    expect(variantsToMake(made, partOf(made, sound.id)!).map((d) => d.code)).not.toContain('HBK');
    expect(variantsToMake(made, partOf(made, 'sound:new')!)).toEqual([]);
  });
  test('a long name keeps the instrument', () => {
    const long = { ...sound, name: 'x'.repeat(200) };
    expect(variantFor(rig, 'sound:new', long, partOf(rig, 'device:hbk')!).sound.name).toMatch(/x… HBK$/);
  });
});

test('a derived sound has a name of its own, counted on', () => {
  const named = (name: string, names: readonly string[]) =>
    derivedName(
      after(islandRun(), {
        put: names.map((n, i) => ({ ...sound, id: `sound:n${i}`, at: 50 + i, calls: [], name: n })),
        remove: [],
      }),
      { ...sound, name },
    );
  expect(named('Rhythm', [])).toBe('Rhythm 2');
  expect(named('Rhythm 2', ['Rhythm', 'Rhythm 2'])).toBe('Rhythm 3');
});
