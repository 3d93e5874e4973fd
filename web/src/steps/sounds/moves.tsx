import { Button, MultiSelect, SegmentedControl, Select } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import type { Id } from '@yunta/core/rig/ids';
import { all, partOf, soundsInOrder } from '@yunta/core/rig/rig';
import type { Move } from '@yunta/core/rig/sound';
import { addMove, assignableSwitches, mannerOf, moveRows, putLists, removeMove, setManner, type Manner } from '@yunta/core/sheets/move-sheet';
import { cellOf, typeBlock, type Column } from '@yunta/core/sheets/sound-sheet';
import { useState } from 'react';
import { useRig } from '../../app/rig-context.js';
import { newPartId } from '../../session/ids.js';
import { Sheet, type SheetRow } from '../../app/sheet.js';
import { fits, TextField } from '../../app/text-field.js';

const MANNERS: readonly Manner[] = ['latched', 'while held', 'one way'];
const OFF_NOTES: Readonly<Record<Manner, string>> = { latched: 'pressed again', 'while held': 'let go', 'one way': 'pressed again' };

/** Moves in the same columns as sounds: what a press gives, and what takes it back. */
export const Moves = ({ hookup, columns, complain }: { hookup: Id<'hookup'>; columns: readonly Column[]; complain: (text: string) => void }) => {
  const { rig, edit } = useRig();
  const [chosen, choose] = useState<Id<'move'>>();
  const [name, setName] = useState('');
  const moves = all(rig, 'move');
  const move = moves.find((m) => m.id === chosen) ?? moves[0];
  const lists = moveRows(rig);
  const scope = { hookup, only: false, unsaid: 'as it is' } as const;
  const codes = new Map(all(rig, 'device').map((d) => [d.id, d.code]));
  const rows = lists.map(({ move: id, list, row }): SheetRow => {
    const of = partOf(rig, id)!;
    const manner = mannerOf(of);
    const note = list === 'on' ? `${manner}, ${of.sounds === 'all' ? 'in all sounds' : `in ${of.sounds.length} sounds`}` : of.off.length === 0 ? `${OFF_NOTES[manner]}: as the sound wants` : OFF_NOTES[manner];
    return { id: row.id, slot: list === 'on' ? of.at.map((a) => `${codes.get(a.device) ?? ''} ${a.switch}`).join(', ') : '', name: list === 'on' ? of.name : 'then', mark: list === 'on' ? '▲' : '▽', says: `, ${list === 'on' ? 'what it gives' : `what takes ${of.name} back`}`, note, isDerived: false, cells: columns.map((c) => cellOf(rig, row, c, hookup, 'as it is')) };
  });
  const add = () => {
    const id = newPartId('move');
    const made = addMove(rig, id, name.trim());
    if (!made) return complain('No controller of this rig has a switch that a program can assign. Add a switcher or a foot controller that has.');
    if (edit(made, `Add ${name.trim()}`).length === 0) {
      setName('');
      choose(id);
    }
  };
  const change = (to: Partial<Move>, what: string) => move && edit({ put: [{ ...move, ...to }], remove: [] }, `${move.name}: ${what}`);
  const switches = assignableSwitches(rig).map((p) => ({ value: `${p.device} ${p.switch}`, label: `${codes.get(p.device) ?? ''} ${p.switch}` }));
  return (
    <>
      <div className="sheet-tools">
        {move && (
          <>
            <strong>{move.name}</strong>
            <SegmentedControl size="xs" aria-label={`How ${move.name} works`} value={mannerOf(move)} onChange={(v) => edit(setManner(move, v as Manner), `${move.name}: ${v}`)} data={[...MANNERS]} />
            <Select size="xs" w={110} aria-label={`Switch of ${move.name}`} allowDeselect={false} data={switches} value={move.at[0] ? `${move.at[0].device} ${move.at[0].switch}` : null} onChange={(v) => { const place = assignableSwitches(rig).find((p) => `${p.device} ${p.switch}` === v); if (place) change({ at: [place] }, `switch ${place.switch}`); }} />
            <MultiSelect size="xs" style={{ minWidth: 180, maxWidth: 340 }} aria-label={`Sounds that have ${move.name}`} placeholder={move.sounds === 'all' ? 'in all sounds' : ''} data={soundsInOrder(rig).map((s) => ({ value: s.id, label: s.name }))} value={move.sounds === 'all' ? [] : [...move.sounds]} searchable clearable maxDropdownHeight={260}
              onChange={(v) => change({ sounds: v.length ? v as Id<'sound'>[] : 'all' }, v.length ? `in ${v.length} sounds` : 'in all sounds')} />
            <Button variant="default" size="xs" onClick={() => edit(removeMove(rig, move.id), `Remove ${move.name}`)}>Remove it</Button>
          </>
        )}
        <form style={{ display: 'flex', gap: 8, marginLeft: 'auto' }} onSubmit={(e) => { e.preventDefault(); if (fits(name, LONGEST.name)) add(); }}>
          <TextField most={LONGEST.name} size="xs" aria-label="Name of a new move" placeholder="Lift" value={name} onChange={(e) => setName(e.currentTarget.value)} />
          <Button type="submit" size="xs" variant="default" disabled={!fits(name, LONGEST.name)}>Add a move</Button>
        </form>
      </div>
      {rows.length === 0 ? <p className="soft">No move yet. A move changes a few things of a sound at one press and takes them back.</p> : (
        <Sheet
          label="Moves" heads={['Switch', 'Move']} nameWidth={316} rows={rows} columns={columns} chosen={lists.find((l) => l.move === move?.id)?.row.id} choose={(id) => choose(lists.find((l) => l.row.id === id)?.move)} complain={complain}
          rename={(row, to) => { const of = lists.find((l) => l.row.id === row.id)!; return of.list === 'on' ? edit({ put: [{ ...partOf(rig, of.move)!, name: to }], remove: [] }, `Rename ${row.name}`) : []; }}
          type={(typed, label) => {
            const done = typeBlock(rig, lists.map((l) => l.row), columns, typed, scope);
            return done.ok ? edit(putLists(rig, lists, done.value), label) : done.error;
          }}
        />
      )}
    </>
  );
};
