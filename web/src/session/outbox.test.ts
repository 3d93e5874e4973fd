import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { openSession, perform, refused } from '@yunta/core/change/session';
import { islandRun } from '@yunta/core/demo/island-run';
import { changeSound } from '@yunta/core/edits/sounds';
import { everyPart, partOf } from '@yunta/core/rig/rig';
import { holdsAnything, keptOf, Outbox, sessionOf } from './outbox.js';

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});

const session = () => {
  const rig = islandRun();
  const done = perform(openSession(rig), changeSound(partOf(rig, 'sound:01')!, { name: 'Waiting' }), 'w1', 'rename');
  if (!done.ok) throw new Error('the edit is right');
  return done.value;
};
const keep = (page: string, rig = 'r') => ({
  rig,
  page,
  revision: 0,
  parts: everyPart(session().confirmed),
  ...keptOf(session()),
});

describe('what a page keeps in the browser', () => {
  test('comes back as it was: the rig, what waits, and what each change did', async () => {
    const outbox = new Outbox();
    await outbox.keep(keep('one'));
    const kept = (await outbox.kept('r', 'one'))!;
    expect(kept.parts).toEqual(everyPart(islandRun()));
    const [waiting] = sessionOf(kept).waiting;
    expect(waiting!.set).toMatchObject({ id: 'w1', base: 0, label: 'rename' });
    expect(waiting!.delta.get('sound:01')).toMatchObject({
      before: { name: 'Verse clean' },
      after: { name: 'Waiting' },
    });
  });
  test('is apart for each page and each rig', async () => {
    const outbox = new Outbox();
    await outbox.keep(keep('one'));
    await outbox.keep(keep('two'));
    await outbox.keep(keep('one', 'other'));
    expect((await outbox.all('r')).map((k) => k.page).sort()).toEqual(['one', 'two']);
    await outbox.drop('r', 'one');
    expect((await outbox.all('r')).map((k) => k.page)).toEqual(['two']);
    expect(await outbox.kept('other', 'one')).toBeDefined();
  });
  test('kept twice is kept once, the later', async () => {
    const outbox = new Outbox();
    await outbox.keep(keep('one'));
    await outbox.keep({ ...keep('one'), waiting: [] });
    expect((await outbox.all('r')).map((k) => k.waiting.length)).toEqual([0]);
  });
  test('what was not settled is kept too; what an older Yunta kept knew of no such thing', async () => {
    const outbox = new Outbox();
    const asked = refused(
      session(),
      'w1',
      [{ part: 'sound:01', field: 'name', base: 'Verse clean', mine: 'Waiting', theirs: 'Theirs' }],
      [],
    );
    await outbox.keep({ ...keep('one'), ...keptOf(asked) });
    const kept = (await outbox.kept('r', 'one'))!;
    expect([holdsAnything(kept), sessionOf(kept).waiting, sessionOf(kept).troubles]).toEqual([
      true,
      [],
      asked.troubles,
    ]);
    const { troubles: _, ...older } = { ...keep('two'), waiting: [] };
    expect([holdsAnything(older), sessionOf(older).troubles]).toEqual([false, []]);
  });
  test('what was never kept is not there', async () => expect(await new Outbox().kept('r', 'none')).toBeUndefined());
});
