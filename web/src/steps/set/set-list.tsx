import { Button, Select } from '@mantine/core';
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { SetSheet, SetSong } from '@yunta/core/derive/views/set-sheet';
import { carrySong, markBefore, setSongs } from '@yunta/core/edits/set-list';
import { theId } from '@yunta/core/rig/ids';
import { all } from '@yunta/core/rig/rig';
import { SET_MARKS, type SetList, type SetMark } from '@yunta/core/rig/show';
import { minutesText } from '@yunta/core/units/minutes';
import type { KeyboardEvent } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { usePrinting } from '../../shared/paper/paper.js';
import { VerdictSign } from '../../shared/verdict.js';
import { ActOfSet, OtherwiseWired } from './act.js';
import { Reserve } from './reserve.js';
import { EasierOrder, InEachHookup } from './set-order.js';
import { SetPaper } from './set-paper.js';

/** A set as it is played: what comes when, what is to be done before and in each song, and what can go wrong. */
export const SetListRoom = ({ list }: { list: SetList }) => {
  const { rig, hookup, edit } = useRig();
  const sheet = useAsked(['set', list.id], (worker) => worker.night.setSheet(list.id));
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const isPrinting = usePrinting();
  // Asked before it is needed: a paper is laid out at once.
  useAsked(['stage', list.id], (worker) => worker.night.stage(list.id));
  const others = all(rig, 'song').filter((s) => !list.songs.includes(s.id));
  const carry = (from: number, to: number): void => {
    const song = sheet?.songs[from];
    if (song && from !== to) edit(carrySong(list, from, to), `${list.name}: ${song.title} to place ${to + 1}`);
  };
  const dropped = ({ active, over }: DragEndEvent): void => {
    const [from, to] = [active, over].map((one) => list.songs.indexOf(theId('song', String(one?.id ?? ''))));
    if (from !== undefined && to !== undefined && from >= 0 && to >= 0) carry(from, to);
  };
  if (!hookup) return <p className="soft">The rig has no hook-up yet: make one in Routing, and the set is judged.</p>;
  if (!sheet) return <p className="soft">Looking at the set …</p>;
  return (
    <>
      {isPrinting && <SetPaper list={list} sheet={sheet} />}
      <OtherwiseWired list={list} />
      <Totals sheet={sheet} />
      <InEachHookup />
      <EasierOrder list={list} />
      {sheet.songs.length === 0 && <p className="soft">No song is in this set yet.</p>}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={[...list.songs]} strategy={verticalListSortingStrategy}>
          <ol className="set-list">
            {sheet.songs.map((song, i) => (
              <Line key={song.song} list={list} song={song} at={i} carry={carry} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {others.length > 0 && (
        <div className="sheet-tools">
          <Select
            size="xs"
            w={260}
            aria-label="Add a song to the set"
            placeholder="add a song"
            searchable
            data={others.map((s) => ({ value: s.id, label: s.title }))}
            value={null}
            onChange={(id) =>
              id && edit(setSongs(list, [...list.songs, theId('song', id)]), `${list.name}: one more song`)
            }
            nothingFoundMessage="No such song"
          />
          <Button
            size="xs"
            variant="default"
            onClick={() =>
              edit(
                setSongs(list, [...list.songs, ...others.map((s) => s.id)]),
                `${list.name}: ${others.length} more songs`,
              )
            }
          >
            Add all {others.length}
          </Button>
        </div>
      )}
      <div className="set-beside no-print">
        <Reserve list={list} reserve={sheet.reserve} />
        <ActOfSet list={list} />
      </div>
    </>
  );
};

const counted = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

const Totals = ({ sheet }: { sheet: SetSheet }) => (
  <p className="set-totals">
    <strong>
      {counted(sheet.songs.length - sheet.spare, 'song', 'songs')}
      {sheet.spare > 0 && ` and ${sheet.spare} spare`}
    </strong>
    {sheet.open < sheet.songs.length - sheet.spare && (
      <span>
        {minutesText(sheet.seconds)}
        {sheet.open > 0 && ` and ${counted(sheet.open, 'song', 'songs')} of unknown length`}, with half a minute between
        songs (assumed)
      </span>
    )}
    <span>
      {counted(sheet.stomps, 'stomp', 'stomps')}
      {sheet.bankPresses > 0 && `, ${sheet.bankPresses} of them bank keys`}
    </span>
    {sheet.instruments > 0 && (
      <span>{counted(sheet.instruments, 'change of instrument', 'changes of instrument')}</span>
    )}
    {sheet.retunings > 0 && <span>{counted(sheet.retunings, 'retuning', 'retunings')}</span>}
  </p>
);

const MARK_WORDS: Readonly<Record<SetMark, string>> = { break: 'Break', encore: 'Encore', spare: 'Spare songs' };

interface LineProps {
  readonly list: SetList;
  readonly song: SetSong;
  readonly at: number;
  readonly carry: (from: number, to: number) => void;
}

/** One song of the set; Alt and an arrow carries it, and so does a finger or the mouse on its number. */
const Line = ({ list, song, at, carry }: LineProps) => {
  const { edit } = useRig();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: song.song });
  const byKey = (e: KeyboardEvent): void => {
    const by = e.key === 'ArrowUp' ? -1 : e.key === 'ArrowDown' ? 1 : 0;
    if (!by || !e.altKey) return;
    e.preventDefault();
    carry(at, Math.max(0, Math.min(list.songs.length - 1, at + by)));
  };
  const mark = (comes: string | null): void => {
    const is = SET_MARKS.find((m) => m === comes);
    edit(markBefore(list, song.song, is), `${song.title}: ${is ?? 'no break before it'}`);
  };
  return (
    <li ref={setNodeRef} style={{ transform: CSS.Transform.toString(transform), transition }}>
      {song.comes && <p className="set-mark">{MARK_WORDS[song.comes]}</p>}
      <div className="set-line">
        <button
          type="button"
          className="set-place mono"
          {...attributes}
          {...listeners}
          onKeyDown={byKey}
          aria-label={`${at + 1}, ${song.title}: Alt and an arrow carries it`}
        >
          {at + 1}
        </button>
        <span className="mono soft set-at">{song.at === undefined ? '' : minutesText(song.at)}</span>
        <span className="set-title">
          <strong className="clip">{song.title}</strong>
          {song.verdict && <VerdictSign is={song.verdict} />}
        </span>
        <span className="soft set-facts">
          {[song.seconds === undefined ? '' : minutesText(song.seconds), song.facts].filter(Boolean).join(', ')}
        </span>
        <span className="set-does">
          {song.changes.map((c) => (
            <span key={c.is} className="set-change">
              {c.text}
            </span>
          ))}
          {song.stomps > 0 && counted(song.stomps, 'stomp', 'stomps')}
          {song.bankPresses > 0 && <strong>, {counted(song.bankPresses, 'bank key', 'bank keys')}</strong>}
          {song.byHand > 0 && `, ${song.byHand} by foot or hand`}
          {song.troubles.length > 0 && <span className="broken"> {song.troubles.join(', ')} may come back wrong</span>}
        </span>
        <span className="set-before">
          <Select
            size="xs"
            w={110}
            aria-label={`What comes before ${song.title}`}
            placeholder="no break"
            clearable
            data={[
              { value: 'break', label: 'a break' },
              { value: 'encore', label: 'the encores' },
              { value: 'spare', label: 'the spare songs' },
            ]}
            value={song.comes ?? null}
            onChange={mark}
          />
        </span>
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`Take ${song.title} out of the set`}
          onClick={() =>
            edit(
              setSongs(
                list,
                list.songs.filter((s) => s !== song.song),
              ),
              `${list.name}: without ${song.title}`,
            )
          }
        >
          ×
        </Button>
      </div>
    </li>
  );
};
