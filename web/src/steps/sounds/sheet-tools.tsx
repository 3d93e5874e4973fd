import { SegmentedControl, Select, TextInput } from '@mantine/core';
import type { Hookup } from '@yunta/core/rig/hookup';
import { theRef, type Ref } from '@yunta/core/rig/ids';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import { useRig } from '../../shared/rig-context.js';
import { WHERE_MARKS } from '../../shared/sheet/row.js';
import type { RowOrder } from './sound-rows.js';

export type SheetKind = 'sounds' | 'moves' | 'songs';

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
  readonly controls: readonly { readonly value: string; readonly label: string }[];
  readonly addColumn: (control: Ref) => void;
  /** What is typed holds in the hook-up that is shown, and in no other. */
  readonly only: boolean;
  readonly setOnly: (only: boolean) => void;
}

/** Which sheet, which rows and columns of it, and where holds what is typed. */
export const SheetTools = ({ sheet, turnTo, controls, addColumn, only, setOnly, ...rows }: SheetToolsProps) => {
  const { rig, hookup } = useRig();
  const isMarked = hookup && soundsInOrder(rig).some((s) => s.wants.some((w) => w.in?.hookup));
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
          { value: 'songs', label: `Songs ${rig.parts.song.size || ''}` },
        ]}
      />
      {sheet === 'sounds' && <Rows {...rows} />}
      {sheet !== 'songs' && (
        <Select
          size="xs"
          w={126}
          aria-label="Show a control as a column"
          placeholder="Add a column"
          searchable
          data={controls}
          value={null}
          onChange={(v) => v && addColumn(theRef(v))}
          nothingFoundMessage="No such control"
          limit={60}
        />
      )}
      {hookup && all(rig, 'hookup').length > 1 && sheet === 'sounds' && (
        <Where hookup={hookup} only={only} setOnly={setOnly} />
      )}
      {isMarked && (
        <span className="soft">
          {WHERE_MARKS['only here']} only in {hookup.name}, {WHERE_MARKS['not everywhere']} otherwise in another
        </span>
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

/** Which sounds, in which order, and against what a change is marked. */
const Rows = ({ arrangement, arrange }: Pick<SheetToolsProps, 'arrangement' | 'arrange'>) => {
  const { rig } = useRig();
  return (
    <>
      <TextInput
        size="xs"
        w={145}
        aria-label="Find sounds"
        placeholder="name, slot, role, song"
        value={arrangement.find}
        onChange={(e) => arrange({ ...arrangement, find: e.currentTarget.value })}
      />
      <Select
        size="xs"
        w={112}
        aria-label="Order of the rows"
        allowDeselect={false}
        data={[...SORTS]}
        value={arrangement.sort}
        onChange={(v) => v && arrange({ ...arrangement, sort: v })}
      />
      <Select
        size="xs"
        w={180}
        aria-label="Mark what changes"
        data={[
          { value: '', label: '▸ against the row above' },
          ...soundsInOrder(rig).map((s) => ({ value: s.id, label: `▸ against ${s.name}` })),
        ]}
        allowDeselect={false}
        searchable
        value={arrangement.against ?? ''}
        onChange={(v) => arrange({ ...arrangement, against: v || undefined })}
      />
    </>
  );
};
