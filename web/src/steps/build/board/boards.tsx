import './boards.css';
import { Button, SegmentedControl } from '@mantine/core';
import { boardFaults } from '@yunta/core/board/faults';
import { tooCloseForAShoe } from '@yunta/core/board/shoe';
import { boardsBeneath, boardsOf } from '@yunta/core/board/laid-out';
import type { LeadLength } from '@yunta/core/board/lengths';
import { readBoard } from '@yunta/core/board/said';
import { weightOf, type BoardWeight } from '@yunta/core/board/weight';
import { setBoard, standsOn } from '@yunta/core/edits/boards';
import { isLead } from '@yunta/core/signal/joined';
import { boxesAlong } from '@yunta/core/rig/box';
import { SHOE_MM, type Board } from '@yunta/core/rig/board';
import type { Hookup } from '@yunta/core/rig/hookup';
import { sayRefusal } from '@yunta/core/rig/result';
import { all, partOf, rigName, thePart, type Rig } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';
import { BoardDrawing, type BoardShown } from '../../../picture/board-drawing.js';
import { Paper, PrintButton, usePrinting } from '../../../shared/paper/paper.js';
import { useAsked, useRig } from '../../../shared/rig-context.js';
import { fileName, saveFile } from '../../../shared/save-file.js';
import { TypedLine } from '../../../shared/typed-line.js';
import { BoardCard } from './board-card.js';
import { BoxCard } from './box-card.js';
import { Faults } from './faults.js';
import { LayOut } from './lay-out.js';
import { Nowhere } from './nowhere.js';
import { useStanding } from './use-standing.js';

const NONE: readonly LeadLength[] = [];

/** Boards of the rig, and where boxes stand on them in this hook-up. */
export const Boards = ({ hookup }: { hookup: Hookup }) => {
  const { rig } = useRig();
  const boards = boardsOf(rig);
  const [chosen, open] = useState<string>();
  const name = chosen !== undefined && boards.has(chosen) ? chosen : [...boards.keys()][0];
  const board = name === undefined ? undefined : boards.get(name);
  return (
    <>
      <div className="boards-bar">
        {boards.size > 1 && (
          <SegmentedControl
            aria-label="Which board"
            size="xs"
            value={name ?? ''}
            onChange={open}
            data={[...boards.keys()]}
          />
        )}
        <NewBoard boards={boards} open={open} />
      </div>
      {name === undefined || !board ? (
        <p className="soft">
          Say how large the board is. Then its boxes stand on it to scale, and leads know how long they have to be.
        </p>
      ) : (
        <OneBoard key={name} hookup={hookup} name={name} board={board} open={open} />
      )}
    </>
  );
};

const FIRST = 'Board';
const freeName = (wanted: string, boards: ReadonlyMap<string, Board>): string => {
  if (!boards.has(wanted)) return wanted;
  for (let n = 2; ; n += 1) if (!boards.has(`${wanted} ${n}`)) return `${wanted} ${n}`;
};

const NewBoard = ({ boards, open }: { boards: ReadonlyMap<string, Board>; open: (name: string) => void }) => {
  const { rig, edit } = useRig();
  const add = (text: string): readonly string[] => {
    const read = readBoard(text);
    if (!read.ok) return read.error.map(sayRefusal);
    const name = freeName(read.value.name || FIRST, boards);
    const refused = edit(setBoard(rig, name, { mm: read.value.mm }), `${name}: a board`);
    if (refused.length === 0) open(name);
    return refused.map(sayRefusal);
  };
  return (
    <TypedLine
      label={boards.size ? 'Another board, tier or drawer' : 'Your board'}
      description=""
      placeholder="Fly board 60 x 32 cm"
      button="Add"
      most={100}
      add={add}
    />
  );
};

/** What belongs on a board: what the feet use and what feeds it, plugged in this hook-up or not in any; no mere lead. */
const boxesFor = (rig: Rig, hookup: Hookup) => {
  const wired = boxesAlong(rig, hookup.id);
  return all(rig, 'device').filter(
    (d) => (d.zone === 'floor' || d.zone === 'supply') && !isLead(d) && (wired.size === 0 || wired.has(d.id)),
  );
};

interface OneBoardProps {
  readonly hookup: Hookup;
  readonly name: string;
  readonly board: Board;
  readonly open: (name: string) => void;
}

const OneBoard = ({ hookup, name, board, open }: OneBoardProps) => {
  const { rig, selected } = useRig();
  const [isFromBelow, turnOver] = useState(false);
  const { out, handle, turn, down, isMoving } = useStanding(hookup, board, isFromBelow);
  const lengths = useAsked(['lead lengths', hookup.id], (worker) => worker.answers.leadLengths()) ?? NONE;
  const faults = useMemo(() => boardFaults(out), [out]);
  const short = lengths.flatMap((l) => {
    const cable = partOf(rig, l.cable);
    const isHere = out.plugs.some((p) => p.cable === l.cable && p.board === name);
    return isHere && cable?.m !== undefined && cable.m < l.least ? [{ cable, least: l.least, step: l.step }] : [];
  });
  const isPrinting = usePrinting();
  const here = standsOn(hookup, name);
  const nowhere = boxesFor(rig, hookup).filter((d) => !hookup.place?.[d.id]);
  const box = out.boxes.find((b) => b.board === name && b.device.id === selected);
  const weight = weightOf(out, name);
  const mine = lengths.filter((l) => l.route?.board === name);
  const mineFaults = faults.filter((f) => out.boxes.some((b) => b.board === name && b.device.id === f.box));
  const shown: BoardShown = {
    name,
    board,
    out,
    lengths: isMoving ? NONE : lengths,
    weight,
    wrong: new Set(mineFaults.flatMap((f) => ('other' in f && f.is !== 'plugs' ? [f.box, f.other] : [f.box]))),
    isFromBelow,
    chosen: box?.device.id,
  };
  const title = `${name} of ${rigName(rig)}, ${hookup.name}`;
  const save = async () =>
    saveFile(
      `${fileName(rigName(rig), name)}.svg`,
      (await import('../../../picture/board-svg.js')).boardSvg({ ...shown, lengths, chosen: undefined }, title),
      'image/svg+xml',
    );
  return (
    <div className="board-both">
      <div>
        <div className="board-tools">
          <span>
            <strong>{here.length}</strong> {here.length === 1 ? 'box' : 'boxes'}, {weightText(weight)}
            {boardsBeneath(out.boards, name).length > 1 && ' with what hangs on it'}
            {mine.length > 0 && `, ${mine.length} leads of ${metresOf(mine)} m in all`}
          </span>
          <Button size="compact-xs" variant="default" aria-pressed={isFromBelow} onClick={() => turnOver(!isFromBelow)}>
            {isFromBelow ? 'From above' : 'From below'}
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => void save()}>
            Save the drawing
          </Button>
          <PrintButton what="the board" />
        </div>
        <div className="board-frame">
          <BoardDrawing {...shown} handle={handle} title={title} />
        </div>
        {here.length > 0 && <Faults faults={mineFaults} short={isMoving ? [] : short} />}
        {tooCloseForAShoe(out, name).map(({ box: one, other, mm }) => (
          <p key={`${one} ${other}`} className="soft">
            {thePart(rig, one).name} and {thePart(rig, other).name}: switches {Math.round(mm)} mm apart. A shoe may hit
            both; {SHOE_MM} mm is usual.
          </p>
        ))}
        {weight.unknown.length > 0 && <p className="soft">Not weighed: {weight.unknown.join(', ')}.</p>}
      </div>
      <div className="build-right">
        {box && <BoxCard box={box} turn={turn} down={down} />}
        <Nowhere hookup={hookup} name={name} boxes={nowhere} />
        <LayOut hookup={hookup} name={name} here={here} nowhere={nowhere.map((d) => d.id)} />
        <BoardCard name={name} board={board} open={open} />
      </div>
      {isPrinting && (
        <Paper title={title} wide>
          <BoardDrawing {...shown} lengths={lengths} chosen={undefined} title={title} />
        </Paper>
      )}
    </div>
  );
};

const weightText = ({ kg, unknown }: BoardWeight): string => `${unknown.length ? 'at least ' : ''}${kg.toFixed(1)} kg`;
const metresOf = (lengths: readonly LeadLength[]): string => lengths.reduce((sum, l) => sum + l.wanted, 0).toFixed(1);
