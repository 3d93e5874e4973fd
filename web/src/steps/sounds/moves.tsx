import { Button, MultiSelect, SegmentedControl, Select } from '@mantine/core';
import { theId, type Id } from '@yunta/core/rig/ids';
import { all, partOf, soundsInOrder, thePart, type Rig } from '@yunta/core/rig/rig';
import { mannerOf, MANNERS, type Manner, type Move } from '@yunta/core/rig/sound';
import { addMove, assignableSwitches, moveRows, putLists, removeMove, setManner } from '@yunta/core/sheets/move-sheet';
import { cellOf, typeBlock, type Column, type Typed } from '@yunta/core/sheets/sound-sheet';
import { useState } from 'react';
import { NewByName } from '../../shared/new-by-name.js';
import { useRig } from '../../shared/rig-context.js';
import { newPartId } from '../../session/ids.js';
import type { SheetRow } from '../../shared/sheet/columns.js';
import { Sheet } from '../../shared/sheet/sheet.js';
import { theOne } from '@yunta/core/known/the';

const OFF_NOTES: Readonly<Record<Manner, string>> = {
  latched: 'pressed again',
  'while held': 'let go',
  'one way': 'pressed again',
};

interface MovesProps {
  readonly hookup: Id<'hookup'>;
  readonly columns: readonly Column[];
  readonly complain: (text: string) => void;
}

/** Moves in the same columns as sounds: what a press gives, and what takes it back. */
export const Moves = ({ hookup, columns, complain }: MovesProps) => {
  const { rig, edit } = useRig();
  const [chosen, choose] = useState<Id<'move'>>();
  const moves = all(rig, 'move');
  const move = moves.find((m) => m.id === chosen) ?? moves[0];
  const lists = moveRows(rig);
  const rename = (row: SheetRow, name: string) => {
    const { list, move: id } = theOne(lists, (l) => l.row.id === row.id);
    if (list !== 'on') return [];
    return edit({ put: [{ ...thePart(rig, id), name }], remove: [] }, `Rename ${row.name}`);
  };
  const type = (typed: readonly Typed[], label: string) => {
    const scope = { hookup, only: false, unsaid: 'as it is' } as const;
    const rows = lists.map((l) => l.row);
    const done = typeBlock(rig, rows, columns, typed, scope);
    return done.ok ? edit(putLists(rig, lists, done.value), label) : done.error;
  };
  return (
    <>
      <div className="sheet-tools">
        {move && <MoveTools move={move} />}
        <NewMove choose={choose} complain={complain} />
      </div>
      {lists.length === 0 ? (
        <p className="soft">No move yet. A move changes a few things of a sound at one press and takes them back.</p>
      ) : (
        <Sheet
          label="Moves"
          heads={['Switch', 'Move']}
          nameWidth={316}
          rows={lists.map((list) => rowOf(rig, list, columns, hookup))}
          columns={columns}
          chosen={lists.find((l) => l.move === move?.id)?.row.id}
          choose={(id) => choose(lists.find((l) => l.row.id === id)?.move)}
          complain={complain}
          rename={rename}
          type={type}
        />
      )}
    </>
  );
};

const switchText = (rig: Rig, place: Move['at'][number]): string =>
  `${partOf(rig, place.device)?.code ?? ''} ${place.switch}`;

/** What a press of a move gives, or what takes it back, as a row of the sheet. */
const rowOf = (
  rig: Rig,
  { move: id, list, row }: ReturnType<typeof moveRows>[number],
  columns: readonly Column[],
  hookup: Id<'hookup'>,
): SheetRow => {
  const move = thePart(rig, id);
  const manner = mannerOf(move);
  const cells = columns.map((c) => cellOf(rig, row, c, hookup, 'as it is'));
  if (list === 'on') {
    const where = move.sounds === 'all' ? 'in all sounds' : `in ${move.sounds.length} sounds`;
    return {
      id: row.id,
      slot: move.at.map((a) => switchText(rig, a)).join(', '),
      name: move.name,
      mark: '▲',
      says: ', what it gives',
      note: `${manner}, ${where}`,
      isDerived: false,
      cells,
    };
  }
  const note = move.off.length === 0 ? `${OFF_NOTES[manner]}: as the sound wants` : OFF_NOTES[manner];
  return {
    id: row.id,
    slot: '',
    name: 'then',
    mark: '▽',
    says: `, what takes ${move.name} back`,
    note,
    isDerived: false,
    cells,
  };
};

/** How the chosen move works, where its switch is, and which sounds have it. */
const MoveTools = ({ move }: { move: Move }) => {
  const { rig, edit } = useRig();
  const places = assignableSwitches(rig);
  const change = (to: Partial<Move>, what: string) =>
    edit({ put: [{ ...move, ...to }], remove: [] }, `${move.name}: ${what}`);
  const putOn = (value: string | null) => {
    const place = places.find((p) => `${p.device} ${p.switch}` === value);
    if (place) change({ at: [place] }, `switch ${place.switch}`);
  };
  const haveIn = (sounds: readonly string[]) =>
    sounds.length
      ? change({ sounds: sounds.map((s) => theId('sound', s)) }, `in ${sounds.length} sounds`)
      : change({ sounds: 'all' }, 'in all sounds');
  return (
    <>
      <strong>{move.name}</strong>
      <SegmentedControl
        size="xs"
        aria-label={`How ${move.name} works`}
        value={mannerOf(move)}
        onChange={(v) => edit(setManner(move, v), `${move.name}: ${v}`)}
        data={[...MANNERS]}
      />
      <Select
        size="xs"
        w={110}
        aria-label={`Switch of ${move.name}`}
        allowDeselect={false}
        data={places.map((p) => ({ value: `${p.device} ${p.switch}`, label: switchText(rig, p) }))}
        value={move.at[0] ? `${move.at[0].device} ${move.at[0].switch}` : null}
        onChange={putOn}
      />
      <MultiSelect
        size="xs"
        className="move-sounds"
        aria-label={`Sounds that have ${move.name}`}
        placeholder={move.sounds === 'all' ? 'in all sounds' : ''}
        data={soundsInOrder(rig).map((s) => ({ value: s.id, label: s.name }))}
        value={move.sounds === 'all' ? [] : [...move.sounds]}
        searchable
        clearable
        maxDropdownHeight={260}
        onChange={haveIn}
      />
      <Button variant="default" size="xs" onClick={() => edit(removeMove(rig, move.id), `Remove ${move.name}`)}>
        Remove it
      </Button>
    </>
  );
};

const NO_SWITCH =
  'No controller of this rig has a switch that a program can assign. Add a switcher or a foot controller that has.';

const NewMove = ({ choose, complain }: { choose: (id: Id<'move'>) => void } & Pick<MovesProps, 'complain'>) => {
  const { rig, edit } = useRig();
  const add = (name: string): boolean => {
    const id = newPartId('move');
    const made = addMove(rig, id, name);
    if (!made) complain(NO_SWITCH);
    if (!made || edit(made, `Add ${name}`).length > 0) return false;
    choose(id);
    return true;
  };
  return <NewByName label="Name of a new move" placeholder="Lift" button="Add a move" add={add} />;
};
