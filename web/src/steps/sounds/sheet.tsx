import './sounds.css';
import type { SoundView, View } from '@yunta/core/derive/view';
import { changeSound, type Scope } from '@yunta/core/edits/sounds';
import type { Id } from '@yunta/core/rig/ids';
import { partOf, soundsInOrder } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { cellOf, IN, OUT, pasteInto, typeInto, type Cell, type Column } from '@yunta/core/sheets/sound-sheet';
import { sayRefusal } from '@yunta/core/rig/result';
import Papa from 'papaparse';
import { memo, useEffect, useMemo, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import { useRig } from '../../app/rig-context.js';

interface Place {
  readonly row: number;
  /** −1 is the name. */
  readonly column: number;
}

const ROLE_LETTERS: Readonly<Record<string, string>> = { clean: 'C', crunch: 'K', lead: 'L', ambience: 'A', fuzz: 'F', other: '·' };

/** The sound sheet: type to fill, arrows to move, paste a block; what changes from the row above is marked. */
export const Sheet = ({ view, scope, chosen, choose, complain }: { view: View; scope: Scope; chosen: Id<'sound'> | undefined; choose: (id: Id<'sound'>) => void; complain: (text: string) => void }) => {
  const { rig, edit } = useRig();
  const { columns } = view;
  const sounds = soundsInOrder(rig);
  const cells = useMemo(() => new Map(soundsInOrder(rig).map((s) => [s.id, columns.map((c) => cellOf(rig, s, c, scope.hookup))])), [rig, columns, scope.hookup]);
  const [at, setAt] = useState<Place>({ row: 0, column: -1 });
  const [editing, setEditing] = useState<string>();
  const table = useRef<HTMLTableElement>(null);
  const wantsFocus = useRef(false);

  useEffect(() => {
    if (!wantsFocus.current || editing !== undefined) return;
    table.current?.querySelector<HTMLElement>(`[data-at="${at.row},${at.column}"]`)?.focus();
    wantsFocus.current = false;
  });

  const go = (row: number, column: number) => {
    const place = { row: Math.max(0, Math.min(sounds.length - 1, row)), column: Math.max(-1, Math.min(columns.length - 1, column)) };
    wantsFocus.current = true;
    setAt(place);
    const sound = sounds[place.row];
    if (sound && sound.id !== chosen) choose(sound.id);
  };
  const commit = (text: string): boolean => {
    const sound = sounds[at.row];
    if (!sound) return false;
    if (at.column === -1) {
      if (!text.trim()) return false;
      return edit(changeSound(sound, { name: text.trim() }), `Rename ${sound.name}`).length === 0;
    }
    const column = columns[at.column]!;
    const typed = typeInto(rig, sound, column, text, scope);
    if (!typed.ok) {
      complain(sayRefusal({ ...typed.error, part: undefined as never }));
      return false;
    }
    complain('');
    return edit(typed.value, `${sound.name}: ${column.title} ${text || 'taken back'}${scope.only ? `, in ${partOf(rig, scope.hookup)!.name} only` : ''}`).length === 0;
  };
  const keyInCell = (e: KeyboardEvent) => {
    const { row, column } = at;
    const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [row - 1, column], ArrowDown: [row + 1, column], ArrowLeft: [row, column - 1], ArrowRight: [row, column + 1], Home: [row, -1], End: [row, columns.length - 1], PageUp: [row - 10, column], PageDown: [row + 10, column] };
    const move = moves[e.key];
    if (move && !e.altKey) {
      e.preventDefault();
      return go(...move);
    }
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const sound = sounds[row];
    const stage = columns[column]?.is === 'stage';
    if (e.key === 'Enter' || e.key === 'F2') {
      e.preventDefault();
      setEditing(column === -1 ? sound?.name ?? '' : cells.get(sound!.id)?.[column]?.text ?? '');
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      if (column >= 0) commit('');
    } else if (e.key === ' ' && stage) {
      e.preventDefault();
      commit(cells.get(sound!.id)?.[column]?.text === IN ? OUT : IN);
    } else if (e.key.length === 1) {
      e.preventDefault();
      setEditing(e.key);
    }
  };
  const keyInInput = (e: KeyboardEvent<HTMLInputElement>) => {
    const done = (row: number, column: number) => {
      e.preventDefault();
      e.stopPropagation();
      const kept = commit(e.currentTarget.value);
      setEditing(undefined);
      go(kept ? row : at.row, kept ? column : at.column);
    };
    if (e.key === 'Enter') done(at.row + 1, at.column);
    else if (e.key === 'Tab') done(at.row, at.column + (e.shiftKey ? -1 : 1));
    else if (e.key === 'Escape') {
      setEditing(undefined);
      wantsFocus.current = true;
    }
    e.stopPropagation();
  };
  const paste = (e: ClipboardEvent) => {
    if (editing !== undefined) return;
    e.preventDefault();
    const rows = Papa.parse<string[]>(e.clipboardData.getData('text/plain').replace(/\n$/, ''), { delimiter: '\t' }).data;
    const pasted = pasteInto(rig, columns, at.row, Math.max(0, at.column), rows, scope);
    if (pasted.ok) {
      complain('');
      edit(pasted.value, `Paste ${rows.length} ${rows.length === 1 ? 'row' : 'rows'}`);
    } else complain(`Nothing was pasted. ${pasted.error.slice(0, 3).map((r) => `${r.where ? `${r.where}: ` : ''}${r.wrong} ${r.would}`).join(' ')}`);
  };
  const copy = (e: ClipboardEvent) => {
    if (editing !== undefined || !sounds[at.row]) return;
    e.preventDefault();
    e.clipboardData.setData('text/plain', at.column < 0 ? [sounds[at.row]!.name, ...cells.get(sounds[at.row]!.id)!.map((c) => c.text)].join('\t') : cells.get(sounds[at.row]!.id)![at.column]!.text);
  };

  return (
    <div className="sheet-wrap">
      <table className="sheet" role="grid" aria-label="Sound sheet" ref={table} onKeyDown={keyInCell} onPaste={paste} onCopy={copy} aria-rowcount={sounds.length + 1} aria-colcount={columns.length + 2}>
        <thead>
          <tr>
            <th className="slot" scope="col">Slot</th><th className="name" scope="col">Sound</th>
            {columns.map((c) => <th key={c.id} scope="col" title={c.says} aria-label={c.says}>{c.title}</th>)}
          </tr>
        </thead>
        <tbody>
          {sounds.map((sound, row) => (
            <Row
              key={sound.id} sound={sound} row={row} view={view.sounds.find((s) => s.id === sound.id)} cells={cells.get(sound.id)!} above={row > 0 ? cells.get(sounds[row - 1]!.id) : undefined} columns={columns}
              parent={sound.parent ? partOf(rig, sound.parent)?.name : undefined} chosen={sound.id === chosen} active={at.row === row ? at.column : undefined} editing={at.row === row ? editing : undefined}
              pick={go} start={setEditing} keyInInput={keyInInput} leave={(text) => { if (editing !== undefined) { if (text !== editing) commit(text); setEditing(undefined); } }}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
};

interface RowProps {
  readonly sound: Sound;
  readonly row: number;
  readonly view: SoundView | undefined;
  readonly cells: readonly Cell[];
  readonly above: readonly Cell[] | undefined;
  readonly columns: readonly Column[];
  readonly parent: string | undefined;
  readonly chosen: boolean;
  readonly active: number | undefined;
  readonly editing: string | undefined;
  readonly pick: (row: number, column: number) => void;
  readonly start: (text: string) => void;
  readonly keyInInput: (e: KeyboardEvent<HTMLInputElement>) => void;
  readonly leave: (text: string) => void;
}

const sameRow = (a: RowProps, b: RowProps): boolean =>
  a.sound === b.sound && a.row === b.row && a.view === b.view && a.columns === b.columns && a.chosen === b.chosen && a.active === b.active && a.editing === b.editing && a.parent === b.parent
  && a.active === undefined && sameCells(a.cells, b.cells) && sameCells(a.above, b.above);
const sameCells = (a: readonly Cell[] | undefined, b: readonly Cell[] | undefined): boolean => a === b || (!!a && !!b && a.length === b.length && a.every((c, i) => c.text === b[i]!.text && c.own === b[i]!.own && c.where === b[i]!.where));

/** As marks of a footnote: what they mean stands above the sheet. */
export const WHERE_MARKS = { 'only here': '†', 'not everywhere': '‡' } as const;

const VERDICTS = { proved: ['✓', 'proved', 'proved'], broken: ['≠', 'can come back wrong', 'broken'], undecided: ['?', 'not decided', 'broken'] } as const;

const Row = memo(({ sound, row, view, cells, above, columns, parent, chosen, active, editing, pick, start, keyInInput, leave }: RowProps) => {
  const input = (label: string) => <input autoFocus defaultValue={editing} aria-label={label} onKeyDown={keyInInput} onBlur={(e) => leave(e.currentTarget.value)} maxLength={120} />;
  const cell = (column: number) => ({
    'data-at': `${row},${column}`, role: 'gridcell', tabIndex: active === column || (active === undefined && row === 0 && column === -1) ? 0 : -1,
    onClick: () => pick(row, column), onDoubleClick: () => start(column === -1 ? sound.name : cells[column]!.text), 'aria-colindex': column + 3,
  });
  const verdict = view && VERDICTS[view.verdict];
  return (
    <tr className={chosen ? 'chosen' : ''} aria-selected={chosen}>
      <td className="slot mono">{view?.slot}</td>
      <td className="name" {...cell(-1)}>
        {editing !== undefined && active === -1 ? input('Name of the sound') : (
          <div className="clip" title={`${sound.name}, ${sound.role}${parent ? `, from ${parent}` : ''}`}>
            <span className="role" aria-hidden="true">{ROLE_LETTERS[sound.role]}</span>{sound.name}
            {verdict && <span className={`verdict ${verdict[2]}`} aria-hidden="true">{verdict[0]}</span>}
            <span className="visually-hidden">, {sound.role}{verdict ? `, ${verdict[1]}` : ''}</span>
            {parent && <span className="soft" style={{ fontSize: 12 }}> from {parent}</span>}
          </div>
        )}
      </td>
      {columns.map((c, i) => {
        const { text, own, where } = cells[i]!;
        const isChanged = above !== undefined && above[i]!.text !== text;
        return (
          <td key={c.id} {...cell(i)} className={`${isChanged ? 'changed' : ''} ${text === OUT ? 'quiet' : ''}`} aria-label={`${c.says}: ${text === IN ? 'in' : text === OUT ? 'out' : text || 'not said'}${isChanged ? ', changed' : ''}${where ? `, ${where}` : ''}`} title={where}>
            {editing !== undefined && active === i ? input(c.says) : <div className={!own && sound.parent ? 'taken' : ''}>{text}{where && <sup aria-hidden="true">{WHERE_MARKS[where]}</sup>}</div>}
          </td>
        );
      })}
    </tr>
  );
}, sameRow);
Row.displayName = 'Row';
