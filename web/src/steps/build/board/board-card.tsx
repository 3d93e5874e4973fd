import { Button, Checkbox } from '@mantine/core';
import { readBoard, sizeText } from '@yunta/core/board/said';
import { boardsOf } from '@yunta/core/board/laid-out';
import { removeBoard, renameBoard, setBoard } from '@yunta/core/edits/boards';
import { withMaybe } from '@yunta/core/known/maybe';
import { SIDES, WIDEST_BOARD, type Board } from '@yunta/core/rig/board';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok } from '@yunta/core/rig/result';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { Numbered } from '../../../shared/numbered.js';
import { useRig } from '../../../shared/rig-context.js';
import { TypedText } from '../../../shared/typed-text.js';

const LEAVE = [
  { value: 'any', label: 'anywhere' },
  ...SIDES.map((value) => ({ value, label: `at the ${value}` })),
] as const;
const ENTERS = [
  { value: 'any', label: 'anywhere' },
  { value: 'right', label: 'at the right' },
  { value: 'left', label: 'at the left' },
] as const;
const HANGS = ['above it', 'beneath it'] as const;
const FLOOR = 'the floor';
const HEAVIEST_KG = 500;

/** Size, weight and ways of one board. */
export const BoardCard = ({ name, board, open }: { name: string; board: Board; open: (name: string) => void }) => {
  const { rig, edit } = useRig();
  const keep = (next: Board): void => void edit(setBoard(rig, name, next), `${name}: board`);
  const others = [...boardsOf(rig).keys()].filter((other) => other !== name);
  return (
    <details className="card board-card">
      <summary>
        <h2>{name}</h2> <span className="soft">{sizeText(board.mm)}</span>
      </summary>
      <div className="fields">
        <KeptField
          most={LONGEST.word}
          size="xs"
          label="Name"
          value={name}
          save={(to) => {
            if (others.includes(to)) return;
            edit(renameBoard(rig, name, to), `${name} is now ${to}`);
            open(to);
          }}
        />
        <div>
          <span className="field-label">Width × depth</span>
          <TypedText
            label="Width × depth of the board"
            most={LONGEST.label}
            text={sizeText(board.mm)}
            read={(typed) => {
              const read = readBoard(typed);
              if (!read.ok) return read;
              keep({ ...board, mm: read.value.mm });
              return ok(typed);
            }}
          />
        </div>
        <Numbered
          shown
          decimal
          label="Bare weight, kg"
          max={HEAVIEST_KG}
          value={board.kg}
          save={(kg) => keep({ ...board, kg })}
          clear={() => keep(withMaybe(board, 'kg', undefined))}
        />
        <Numbered
          shown
          label="Room above it, mm"
          min={1}
          max={WIDEST_BOARD}
          value={board.high}
          save={(high) => keep({ ...board, high })}
          clear={() => keep(withMaybe(board, 'high', undefined))}
        />
        <Choice
          label="Leads leave it"
          data={LEAVE}
          value={board.leave ?? 'any'}
          choose={(side) => keep(withMaybe(board, 'leave', side === 'any' ? undefined : side))}
        />
        <Choice
          label="The signal comes in"
          data={ENTERS}
          value={board.enters ?? 'any'}
          choose={(side) => keep(withMaybe(board, 'enters', side === 'any' ? undefined : side))}
        />
        {others.length > 0 && (
          <Choice
            label="It hangs on"
            data={[FLOOR, ...others]}
            value={board.on?.board ?? FLOOR}
            choose={(on) =>
              keep(withMaybe(board, 'on', on === FLOOR ? undefined : { board: on, x: 0, y: 0, z: 60, ...moved(board) }))
            }
          />
        )}
      </div>
      {board.on && <Tier board={board} on={board.on} keep={keep} />}
      <Checkbox
        size="xs"
        label="It has slots: leads can run beneath it"
        checked={board.slotted ?? false}
        onChange={(e) => keep(withMaybe(board, 'slotted', e.currentTarget.checked || undefined))}
      />
      <Button size="compact-xs" variant="default" onClick={() => edit(removeBoard(rig, name), `Take ${name} away`)}>
        Take the board away
      </Button>
    </details>
  );
};

const moved = ({ on }: Board) => (on ? { x: on.x, y: on.y, z: on.z } : {});

const AXES = [
  ['x', 'To the right, mm'],
  ['y', 'To the back, mm'],
] as const;

/** Where a tier hangs, seen from the front left corner of the board below it. */
const Tier = ({ board, on, keep }: { board: Board; on: NonNullable<Board['on']>; keep: (next: Board) => void }) => (
  <div className="board-size">
    {AXES.map(([axis, label]) => (
      <Numbered
        key={axis}
        shown
        label={label}
        min={-WIDEST_BOARD}
        max={WIDEST_BOARD}
        value={on[axis]}
        save={(v) => keep({ ...board, on: { ...on, [axis]: v } })}
      />
    ))}
    <Choice
      label="Hangs"
      data={HANGS}
      value={on.z < 0 ? 'beneath it' : 'above it'}
      choose={(where) => keep({ ...board, on: { ...on, z: Math.abs(on.z) * (where === 'beneath it' ? -1 : 1) } })}
    />
    <Numbered
      shown
      label="By how much, mm"
      min={1}
      max={WIDEST_BOARD}
      value={Math.abs(on.z)}
      save={(v) => keep({ ...board, on: { ...on, z: on.z < 0 ? -v : v } })}
    />
  </div>
);
