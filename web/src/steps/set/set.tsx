import './set.css';
import { Button, SegmentedControl, Select, type ComboboxData } from '@mantine/core';
import { listsOf } from '@yunta/core/edits/engagements';
import { addSetList } from '@yunta/core/edits/set-list';
import type { Hookup } from '@yunta/core/rig/hookup';
import { tailOf, type Id } from '@yunta/core/rig/ids';
import { all, type Rig } from '@yunta/core/rig/rig';
import type { SetList } from '@yunta/core/rig/show';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { BoxOrder } from './box-order.js';
import { DanceRoom } from './dance.js';
import { NewByName } from '../../shared/new-by-name.js';
import { PrintButton } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';
import { newPartId } from '../../session/ids.js';
import { Loops } from './loops.js';
import { PapersRoom } from './papers.js';
import { SetListRoom } from './set-list.js';
import { SlotsRoom } from './slots.js';
import { SongPage } from './song-page.js';
import { Songs } from './songs.js';
import { Times } from './times.js';

const PARTS = [
  { value: 'list', label: 'Set list' },
  { value: 'songs', label: 'Songs' },
  { value: 'dance', label: 'Dance' },
  { value: 'slots', label: 'Slots' },
  { value: 'times', label: 'Times' },
  { value: 'papers', label: 'Papers' },
] as const;

/** Sets under the act that they are played for; those of no act come first. */
const listsByAct = (rig: Rig): ComboboxData => {
  const item = (l: SetList) => ({ value: l.id, label: l.name });
  const loose = all(rig, 'setList').filter((l) => !l.engagement);
  const acts = all(rig, 'engagement').map((act) => ({ group: act.name, items: listsOf(rig, act.id).map(item) }));
  return [...loose.map(item), ...acts.filter((a) => a.items.length > 0)];
};

/** The stage shows the same night in the same hook-up. */
const stageParams = (list: SetList | undefined, hookup: Hookup | undefined): string =>
  new URLSearchParams({ ...(list ? { list: list.id } : {}), ...(hookup ? { in: tailOf(hookup.id) } : {}) }).toString();

/** A night: its songs and their cues, the order in which they are played, and where their sounds are best stored. */
export const SetRoom = () => {
  const { rig, hookup } = useRig();
  const [params, setParams] = useSearchParams();
  const [complaint, complain] = useState('');
  const [first] = useState(rig.parts.song.size ? ('list' as const) : ('songs' as const));
  const part = PARTS.find((p) => p.value === params.get('show'))?.value ?? first;
  const lists = all(rig, 'setList');
  const list = lists.find((l) => l.id === params.get('list')) ?? lists[0];
  const show = (to: Readonly<Record<string, string>>): void =>
    setParams({ show: part, ...(list ? { list: list.id } : {}), ...to }, { replace: true });
  const song = all(rig, 'song').find((s) => s.id === params.get('song'));
  const openSong = (id: Id<'song'> | undefined): void => {
    complain('');
    show(id ? { show: 'songs', song: id } : { show: 'songs' });
  };
  return (
    <>
      <div className="headline no-print">
        <h1>Set</h1>
        {lists.length > 1 && (
          <Select
            size="xs"
            aria-label="Set list"
            allowDeselect={false}
            data={listsByAct(rig)}
            value={list?.id ?? null}
            onChange={(id) => id && show({ list: id })}
          />
        )}
        {lists.length === 1 && <span className="soft">{list?.name}</span>}
        <div className="tools">
          <SegmentedControl
            aria-label="What of the set"
            size="xs"
            value={part}
            onChange={(v) => show({ show: v })}
            data={[...PARTS]}
          />
          {part === 'songs' && <PrintButton what="this sheet" />}
          {part === 'list' && list && <PrintButton what="the set" />}
          {rig.parts.song.size > 0 && (
            <Button size="xs" component={Link} to={`../stage?${stageParams(list, hookup)}`}>
              On stage
            </Button>
          )}
        </div>
      </div>
      {complaint && (
        <p role="alert" className="broken complaint">
          {complaint}
        </p>
      )}
      {part === 'songs' && (
        <div className="sounds">
          {song ? (
            <SongPage song={song} open={openSong} complain={complain} />
          ) : (
            <Songs complain={complain} open={openSong} />
          )}
        </div>
      )}
      {part === 'list' && (
        <>
          {list && <SetListRoom key={list.id} list={list} />}
          <NewSet lists={lists} made={(id) => show({ show: 'list', list: id })} />
        </>
      )}
      {part === 'dance' && <DanceRoom list={list} />}
      {part === 'slots' && (
        <>
          <SlotsRoom list={list} />
          <Loops />
          <BoxOrder />
        </>
      )}
      {part === 'times' && <Times />}
      {part === 'papers' && <PapersRoom list={list} />}
    </>
  );
};

/** A new set; the first one begins with all songs in the order in which they were entered. */
const NewSet = ({ lists, made }: { lists: readonly SetList[]; made: (id: string) => void }) => {
  const { rig, edit } = useRig();
  const songs = all(rig, 'song').map((s) => s.id);
  if (songs.length === 0)
    return (
      <p className="soft">
        A set is made of songs. <Link to="?show=songs">Type the first song</Link>.
      </p>
    );
  const add = (name: string): boolean => {
    const id = newPartId('setList');
    if (edit(addSetList(rig, id, name, lists.length ? [] : songs), `Add ${name}`).length > 0) return false;
    made(id);
    return true;
  };
  return (
    <NewByName
      label="Name of a new set"
      placeholder="Friday, long set"
      button={lists.length ? 'Add another set' : `Make a set of all ${songs.length} songs`}
      add={add}
    />
  );
};
