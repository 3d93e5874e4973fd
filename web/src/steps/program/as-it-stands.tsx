import { Button } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import type { TypeBox } from '@yunta/core/derive/views/type-in';
import { shown } from '@yunta/core/midi/numbering';
import { makesSound, type Device, type Memory } from '@yunta/core/rig/device';
import type { Program } from '@yunta/core/rig/program';
import { sayRefusal } from '@yunta/core/rig/result';
import { partOf, programsOf, type Rig } from '@yunta/core/rig/rig';
import {
  addProgram,
  forgetProgram,
  programCell,
  type ProgramColumn,
  programColumns,
  putPrograms,
  typePrograms,
} from '@yunta/core/sheets/program-sheet';
import { programRows, scenesIn, type ProgramRow } from '@yunta/core/sheets/program-rows';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAsked, useRig } from '../../shared/rig-context.js';
import type { SheetRow } from '../../shared/sheet/columns.js';
import { Sheet } from '../../shared/sheet/sheet.js';
import { Boxes, keyOf } from './boxes.js';
import { fits, TextField } from '../../shared/text-field.js';
import { type Typed } from '@yunta/core/sheets/sound-sheet';
import { theOne } from '@yunta/core/known/the';
import { memoryIn } from '@yunta/core/rig/box';

/** What stands in a box, whoever typed it: written down it is what Yunta proves with, and never altered. */
export const AsItStands = () => {
  const { rig } = useRig();
  const [params, setParams] = useSearchParams();
  const asked = useAsked(['type in'], (worker) => worker.answers.typeIn());
  if (!asked) return <p className="soft">Looking at what each box holds …</p>;
  const boxes: readonly Box[] = [...asked, ...silentBoxes(rig, asked)];
  const box = boxes.find((b) => keyOf(b) === params.get('box')) ?? boxes[0];
  if (!box) return <p className="soft">No box of this rig has programs.</p>;
  const count = (b: Box) =>
    programsOf(rig, b.device, b.memory).filter((p) => !p.planned && p.contents !== 'unplanned').length;
  return (
    <div className="as-it-stands">
      <Boxes
        boxes={boxes}
        chosen={box}
        choose={(b) => setParams({ show: 'write', box: keyOf(b) }, { replace: true })}
        says={(b) => (count(b) ? `${count(b)} written down` : 'nothing written down')}
      />
      <Programs key={keyOf(box)} box={box} start={Number(params.get('number') ?? NaN)} />
    </div>
  );
};

type Box = Pick<TypeBox, 'device' | 'memory' | 'code' | 'name' | 'slots'>;

/** Boxes with programs of which no sound calls any and none is written down yet. */
const silentBoxes = (rig: Rig, known: readonly Box[]): readonly Box[] =>
  [...rig.parts.device.values()].flatMap((device) =>
    device.memories
      .filter(
        (m) => !m.inside && m.stores.length > 0 && !known.some((b) => b.device === device.id && b.memory === m.id),
      )
      .map((m): Box => ({ device: device.id, memory: m.id, code: device.code, name: device.name, slots: [] })),
  );

const NOTES = { written: 'written down', planned: 'planned by Yunta', unknown: 'not written down' } as const;
const MARKS = { written: '✎', planned: '○', unknown: '?' } as const;

const sheetRowOf = (r: ProgramRow, columns: readonly ProgramColumn[]): SheetRow => ({
  id: r.key,
  slot: r.shown,
  name: r.program.name,
  mark: MARKS[r.is],
  says: '',
  isDerived: r.is !== 'written',
  note: [NOTES[r.is], r.calledBy === 0 ? 'no sound calls it' : ''].filter(Boolean).join(', '),
  cells: columns.map((c) => ({ ...programCell(r.program, c), own: r.is === 'written' })),
});

interface OfMemory {
  readonly device: Device;
  readonly memory: Memory;
}

const Programs = ({ box, start }: { box: Box; start: number }) => {
  const { rig } = useRig();
  const device = partOf(rig, box.device);
  const memory = memoryIn(device, box.memory);
  return device && memory ? <ProgramSheet box={box} start={start} device={device} memory={memory} /> : null;
};

const ProgramSheet = ({ box, start, device, memory }: OfMemory & { box: Box; start: number }) => {
  const { rig, edit } = useRig();
  const [chosen, choose] = useState<string>();
  const [complaint, complain] = useState('');
  const columns = useMemo(() => programColumns(device, memory), [device, memory]);
  const rows = useMemo(() => programRows(rig, device, memory, box.slots), [rig, box, device, memory]);
  const row =
    rows.find((r) => (chosen === undefined ? !r.isScene && r.program.number === start : r.key === chosen)) ?? rows[0];
  const isPlannedHere = memory.by !== undefined && (!makesSound(device) || rows.some((r) => r.is === 'planned'));
  const rename = (of: SheetRow, name: string) => {
    const { program } = theOne(rows, (r) => r.key === of.id);
    return edit(putPrograms(rig, [{ ...withoutPlan(program), name }]), `Rename ${of.name}`);
  };
  const type = (typed: readonly Typed[], label: string) => {
    const programs = rows.map((r) => r.program);
    const done = typePrograms(rig, programs, columns, typed);
    return done.ok ? edit(done.value, `${device.name}, ${label}`) : done.error;
  };
  const forget = ({ program, shown: number }: ProgramRow) => {
    const what = isPlannedHere ? 'planned by Yunta again' : 'no longer written down';
    edit(forgetProgram(rig, program), `${device.name} ${number}: ${what}`);
  };
  return (
    <>
      <div className="sheet-tools">
        {row?.is === 'written' && (
          <>
            <strong className="mono">
              {box.code} {row.shown}
            </strong>
            <Button variant="default" size="xs" onClick={() => forget(row)}>
              {isPlannedHere ? 'Let Yunta plan it' : 'Not known any more'}
            </Button>
          </>
        )}
        <AddProgram device={device} memory={memory} complain={complain} />
      </div>
      {complaint && (
        <p className="broken programs-complaint" role="alert">
          {complaint}
        </p>
      )}
      {rows.length === 0 ? (
        <p className="soft">
          Nothing of {device.name} is written down, and no sound calls a program of it. Add one by the number that its
          display shows.
        </p>
      ) : (
        <Sheet
          label={`Programs of ${device.name}`}
          heads={['Shows', isPlannedHere && !makesSound(device) ? 'Slot' : 'Program']}
          nameWidth={300}
          rows={rows.map((r) => sheetRowOf(r, columns))}
          columns={columns}
          chosen={row?.key}
          choose={choose}
          complain={complain}
          rename={rename}
          type={type}
        />
      )}
      <p className="soft">
        {isPlannedHere
          ? 'As long as nobody writes a slot down, Yunta plans it and keeps it in step with the sound. Written down, it is proved with as it stands, and stays as it is.'
          : 'What you write down here is what calling the program brings; an empty cell is left as it was. Plans use it and never alter it.'}
      </p>
    </>
  );
};

/** Room for a scene: 128 scene 8. */
const MOST_DIGITS = 16;

/** One more program, by the number that the display of the box shows. */
const AddProgram = ({ device, memory, complain }: OfMemory & { complain: (text: string) => void }) => {
  const { rig, edit } = useRig();
  const [number, setNumber] = useState('');
  const [name, setName] = useState('');
  const most = memory.limits?.nameLength ?? LONGEST.label;
  const scenes = scenesIn(device, memory).length > 0;
  const isFit = fits(number, MOST_DIGITS) && (name.trim() === '' || fits(name, most));
  const add = () => {
    const made = addProgram(rig, device, memory, number, name.trim());
    if (!made.ok) return complain(sayRefusal(made.error));
    complain('');
    if (edit(made.value, `${device.name}: ${number}`).length > 0) return;
    setNumber('');
    setName('');
  };
  return (
    <form
      className="add-program"
      onSubmit={(e) => {
        e.preventDefault();
        if (number.trim()) add();
      }}
    >
      <TextField
        most={MOST_DIGITS}
        size="xs"
        w={scenes ? 120 : 80}
        aria-label="Number as the box shows it"
        placeholder={`${shown(memory.shows, 0)}${scenes ? ' scene 2' : ''}`}
        value={number}
        onChange={(e) => setNumber(e.currentTarget.value)}
      />
      <TextField
        most={most}
        size="xs"
        w={170}
        aria-label="Name of the program"
        placeholder="name on its display"
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button type="submit" size="xs" variant="default" disabled={!isFit}>
        Add a {memory.by === undefined || scenes ? 'program' : 'slot'}
        {scenes ? ' or a scene' : ''}
      </Button>
    </form>
  );
};

const withoutPlan = ({ planned: _, ...program }: Program): Program => program;
