import { verdictText } from '@yunta/core/recall/words/verdict-words';
import type { View } from '@yunta/core/derive/views/view';
import { changeSound, type Scope } from '@yunta/core/edits/sounds';
import { theId, type Id } from '@yunta/core/rig/ids';
import { all, partOf, soundsInOrder, thePart, type Rig } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { cellOf, typeBlock, type Cell, type Column } from '@yunta/core/sheets/sound-sheet';
import { useMemo } from 'react';
import { useRig } from '../../shared/rig-context.js';
import type { SheetRow } from '../../shared/sheet/columns.js';
import { Sheet } from '../../shared/sheet/sheet.js';
import { theEntry, theItem } from '@yunta/core/known/the';
import { Reason } from './reason.js';

const ROLE_LETTERS: Readonly<Record<string, string>> = {
  clean: 'C',
  crunch: 'K',
  lead: 'L',
  ambience: 'A',
  fuzz: 'F',
  other: '·',
};

/** How the rows stand, and which of them. It belongs to the page, not to the rig. */
export interface RowOrder {
  readonly find: string;
  readonly sort: 'sheet' | 'slot' | 'role' | 'song';
  /** The sound beside which changes are marked; without one, the row above. */
  readonly against: Id<'sound'> | undefined;
}

export const AS_IT_STANDS: RowOrder = { find: '', sort: 'sheet', against: undefined };

const arranged = (rig: Rig, slotOf: (s: Sound) => string, { find, sort }: RowOrder): readonly Sound[] => {
  const sought = find.trim().toLowerCase();
  const songs = all(rig, 'song');
  const songsOf = (s: Sound) =>
    songs.filter((song) => song.cues.some((c) => 'sound' in c.call && c.call.sound === s.id));
  const place = (s: Sound): number =>
    sort === 'song'
      ? songs.findIndex((song) => song.cues.some((c) => 'sound' in c.call && c.call.sound === s.id)) + 1 ||
        songs.length + 1
      : 0;
  const text = (s: Sound): string => (sort === 'slot' ? slotOf(s) || '\uffff' : sort === 'role' ? s.role : '');
  return soundsInOrder(rig)
    .filter(
      (s) =>
        !sought ||
        [s.name, s.role, slotOf(s), ...songsOf(s).map((song) => song.title)].some((t) =>
          t.toLowerCase().includes(sought),
        ),
    )
    .sort((a, b) => place(a) - place(b) || text(a).localeCompare(text(b), undefined, { numeric: true }) || a.at - b.at);
};

/** The sound sheet. */
export const SoundSheet = ({
  view,
  columns,
  scope,
  arrangement,
  chosen,
  choose,
  complain,
}: {
  view: View;
  columns: readonly Column[];
  scope: Scope;
  arrangement: RowOrder;
  chosen: Id<'sound'> | undefined;
  choose: (id: Id<'sound'>) => void;
  complain: (text: string) => void;
}) => {
  const { rig, edit } = useRig();
  const views = useMemo(() => new Map(view.sounds.map((s) => [s.id, s])), [view.sounds]);
  const cells = useMemo(
    () => new Map(soundsInOrder(rig).map((s) => [s.id, columns.map((c) => cellOf(rig, s, c, scope.hookup))])),
    [rig, columns, scope.hookup],
  );
  const sounds = useMemo(
    () => arranged(rig, (s) => views.get(s.id)?.slot ?? '', arrangement),
    [rig, views, arrangement],
  );
  const rows = sounds.map((sound, i): SheetRow => {
    const seen = views.get(sound.id);
    const parent = sound.parent && partOf(rig, sound.parent);
    const above: Sound | undefined = sounds[i - 1];
    const against: readonly Cell[] | undefined = arrangement.against
      ? cells.get(arrangement.against)
      : above && cells.get(above.id);
    return {
      id: sound.id,
      slot: seen?.slot ?? '',
      name: sound.name,
      mark: ROLE_LETTERS[sound.role] ?? '·',
      says: `, ${sound.role}${seen ? `, ${verdictText(seen)}` : ''}`,
      cells: theEntry(cells, sound.id),
      isDerived: parent !== undefined,
      ...(parent ? { note: `${sound.mirror ? 'mirrors' : 'from'} ${parent.name}` } : {}),
      ...(seen ? { verdict: seen.verdict } : {}),
      ...(against ? { against } : {}),
    };
  });
  if (rows.length === 0) return <p className="soft">No sound is called so, stored there, or played in such a song.</p>;
  return (
    <Sheet
      label="Sound sheet"
      heads={['Slot', 'Sound']}
      nameWidth={244}
      rows={rows}
      columns={columns}
      chosen={chosen}
      choose={(id) => choose(theId('sound', id))}
      complain={complain}
      rename={(row, name) => edit(changeSound(thePart(rig, theId('sound', row.id)), { name }), `Rename ${row.name}`)}
      beside={(row, at) => {
        const [column, sound] = [theItem(columns, at), thePart(rig, theId('sound', row.id))];
        return (
          <Reason
            key={`${row.id} ${column.id}`}
            sound={sound}
            column={column}
            cell={theItem(theEntry(cells, sound.id), at)}
            scope={scope}
          />
        );
      }}
      type={(typed, label) => {
        const done = typeBlock(rig, sounds, columns, typed, scope);
        return done.ok
          ? edit(
              { put: done.value, remove: [] },
              `${label}${scope.only ? `, in ${thePart(rig, scope.hookup).name} only` : ''}`,
            )
          : done.error;
      }}
    />
  );
};
