import { Button, Popover, SegmentedControl, Select, TextInput } from '@mantine/core';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { Ref } from '@yunta/core/rig/ids';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import { PrintButton } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';
import type { RowOrder } from './sound-rows.js';
import type { Addable } from './columns.js';
import { NewSound, type AddSound } from './sound-tools.js';

export type SheetKind = 'sounds' | 'moves';

const SORTS = [
  { value: 'sheet', label: 'as entered' },
  { value: 'slot', label: 'by slot' },
  { value: 'role', label: 'by role' },
  { value: 'song', label: 'by song' },
] as const;

interface SheetToolsProps {
  readonly sheet: SheetKind;
  readonly turnTo: (sheet: SheetKind) => void;
  readonly arrangement: RowOrder;
  readonly arrange: (arrangement: RowOrder) => void;
  /** Controls that could be a column and are none. */
  readonly controls: readonly Addable[];
  readonly addColumns: (controls: readonly Ref[]) => void;
  /** What is typed holds in the hook-up that is shown, and in no other. */
  readonly only: boolean;
  readonly setOnly: (only: boolean) => void;
  readonly add: AddSound;
}

/** Which sheet, and where holds what is typed; which rows and columns, behind one button. */
export const SheetTools = ({ sheet, turnTo, controls, addColumns, only, setOnly, add, ...rows }: SheetToolsProps) => {
  const { rig, hookup } = useRig();
  return (
    <div className="sheet-tools">
      <SegmentedControl
        size="xs"
        aria-label="Which sheet"
        value={sheet}
        onChange={(v) => turnTo(v)}
        data={[
          { value: 'sounds', label: 'Sound sheet' },
          { value: 'moves', label: `Moves ${rig.parts.move.size || ''}` },
        ]}
      />
      {sheet === 'sounds' && <FindSounds {...rows} />}
      <Popover position="bottom-start" shadow="md" width={260} trapFocus>
        <Popover.Target>
          <Button variant="default" size="xs">
            Rows and columns <span aria-hidden>&ensp;▾</span>
          </Button>
        </Popover.Target>
        <Popover.Dropdown className="rows-and-columns">
          {sheet === 'sounds' && <Rows {...rows} />}
          <Select
            size="xs"
            label="Show a control as a column"
            placeholder="a control"
            searchable
            comboboxProps={{ withinPortal: false }}
            data={controls.map(({ value, label }) => ({ value, label }))}
            value={null}
            onChange={(v) => addColumns(controls.find((c) => c.value === v)?.controls ?? [])}
            nothingFoundMessage="No such control"
            limit={60}
          />
          <PrintButton what="this sheet" />
        </Popover.Dropdown>
      </Popover>
      {hookup && all(rig, 'hookup').length > 1 && sheet === 'sounds' && (
        <Where hookup={hookup} only={only} setOnly={setOnly} />
      )}
      {sheet === 'sounds' && (
        <div className="at-the-end">
          <NewSound add={add} compact />
        </div>
      )}
    </div>
  );
};

const Where = ({ hookup, only, setOnly }: { hookup: Hookup } & Pick<SheetToolsProps, 'only' | 'setOnly'>) => (
  <SegmentedControl
    size="xs"
    aria-label="Where holds what I type"
    value={only ? 'only' : 'all'}
    onChange={(v) => setOnly(v === 'only')}
    data={[
      { value: 'all', label: 'In every hook-up' },
      { value: 'only', label: `In ${hookup.name.length > 24 ? 'this one' : hookup.name} only` },
    ]}
  />
);

type RowsProps = Pick<SheetToolsProps, 'arrangement' | 'arrange'>;

const FindSounds = ({ arrangement, arrange }: RowsProps) => (
  <TextInput
    size="xs"
    w={145}
    aria-label="Find sounds"
    placeholder="name, slot, role, song"
    value={arrangement.find}
    onChange={(e) => arrange({ ...arrangement, find: e.currentTarget.value })}
  />
);

/** In which order the sounds stand, and against what a change is marked. */
const Rows = ({ arrangement, arrange }: RowsProps) => {
  const { rig } = useRig();
  return (
    <>
      <Select
        size="xs"
        label="Order of the rows"
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
        data={[...SORTS]}
        value={arrangement.sort}
        onChange={(v) => v && arrange({ ...arrangement, sort: v })}
      />
      <Select
        size="xs"
        label="Mark what changes ▸"
        data={[
          { value: '', label: 'against the row above' },
          ...soundsInOrder(rig).map((s) => ({ value: s.id, label: `against ${s.name}` })),
        ]}
        allowDeselect={false}
        searchable
        comboboxProps={{ withinPortal: false }}
        value={arrangement.against ?? ''}
        onChange={(v) => arrange({ ...arrangement, against: v || undefined })}
      />
    </>
  );
};
