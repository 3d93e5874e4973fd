import { Button, SegmentedControl, Select, TextInput } from '@mantine/core';
import { cutTo, LONGEST } from '@yunta/core/rig/limits';
import { addSound, changeSound, giveSlots, removeSound, setLeaving } from '@yunta/core/edits/sounds';
import { together } from '@yunta/core/change/edit';
import { all, partOf, soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import { controlColumn, type Column } from '@yunta/core/sheets/sound-sheet';
import { ROLES, type Role, type Sound } from '@yunta/core/rig/sound';
import { ref, splitRef, type Id, type Ref } from '@yunta/core/rig/ids';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAsked, useRig } from '../../app/rig-context.js';
import { VerdictText } from '../../app/verdict.js';
import { Run } from '../../picture/run.js';
import { newPartId } from '../../session/ids.js';
import { Compare } from './compare.js';
import { Detail } from './detail.js';
import { GainLadder } from './gain-ladder.js';
import { Moves } from './moves.js';
import { Songs } from './songs.js';
import { WHERE_MARKS } from '../../app/sheet.js';
import { AS_IT_STANDS, SoundSheet, type Arrangement } from './sound-rows.js';
import { fits, TextField } from '../../app/text-field.js';

const LEAVING = [{ value: '', label: 'tails as they come' }, { value: 'ring', label: 'left, it rings out' }, { value: 'cut', label: 'left, it stops' }];

const SORTS = [{ value: 'sheet', label: 'as entered' }, { value: 'slot', label: 'by slot' }, { value: 'role', label: 'by role' }, { value: 'song', label: 'by song' }];

/** The sheet's columns with those that the page asked for, each beside the others of its box. */
const withColumns = (rig: Rig, columns: readonly Column[], more: readonly Ref[]): readonly Column[] => {
  const known = new Set(columns.map((c) => c.id));
  const extra = more.filter((r) => !known.has(r)).flatMap((r) => {
    const { device, name } = splitRef(r);
    const box = partOf(rig, device);
    const control = box?.controls.find((c) => c.id === name);
    return box && control ? [controlColumn(box, control)] : [];
  });
  const after = new Map(extra.map((c) => [c, columns.findLastIndex((o) => o.device === c.device)]));
  return [...columns.flatMap((c, i) => [c, ...extra.filter((e) => after.get(e) === i)]), ...extra.filter((e) => after.get(e)! < 0)];
};

/** Controls that could be a column and are none. */
const addable = (rig: Rig, columns: readonly Column[]): { value: string; label: string }[] => {
  const known = new Set(columns.map((c) => c.id));
  return all(rig, 'device').flatMap((d) => d.controls.filter((c) => c.use === 'sound' && !known.has(ref(d.id, c.id)) && !d.memories.some((m) => m.control === c.id || m.by === 'slot')).map((c) => ({ value: ref(d.id, c.id) as string, label: `${d.code} ${c.name ?? c.id}, ${d.name}` })));
};

export const Sounds = () => {
  const { rig, hookup, edit, view, selected, select } = useRig();
  const navigate = useNavigate();
  const sounds = soundsInOrder(rig);
  const chosen = sounds.find((s) => s.id === selected) ?? sounds[0];
  const shown = view?.sounds.find((s) => s.id === chosen?.id);
  const run = useAsked(['run', chosen?.id], (worker) => worker.run(chosen?.id), !!chosen);
  const stored = useAsked(['stored', chosen?.id], (worker) => worker.stored(chosen!.id), !!chosen);
  const [complaint, complain] = useState('');
  const [showStored, setShowStored] = useState(false);
  const [comparing, compare] = useState(false);
  const [climbing, climb] = useState(false);
  const [detailed, detail] = useState(false);
  const [only, setOnly] = useState(false);
  const [sheet, setSheet] = useState<'sounds' | 'moves' | 'songs'>('sounds');
  const [arrangement, arrange] = useState(AS_IT_STANDS);
  const [more, setMore] = useState<readonly Ref[]>([]);
  const columns = useMemo(() => withColumns(rig, view?.columns ?? [], more), [rig, view?.columns, more]);
  const controls = useMemo(() => addable(rig, columns), [rig, columns]);
  const hookups = all(rig, 'hookup');
  const marks = hookup && sounds.some((s) => s.wants.some((w) => w.in?.hookup));
  const add = (name: string, role: Role, parent?: Id<'sound'>) => {
    const id = newPartId('sound');
    const made = addSound(rig, id, name, role, parent);
    if (edit(sounds.some((s) => s.calls.length === 0) ? together(giveSlots(rig), made) : made, parent ? `Derive ${name}` : `Add ${name}`).length === 0) select(id);
  };
  if (!chosen) {
    return (
      <>
        <div className="headline"><h1>Sounds</h1></div>
        <div className="card" style={{ maxWidth: 640 }}>
          <h2>The first sound</h2>
          <p className="soft">A sound says which stages are in it; whatever loop, program or foot brings them there is worked out. What it does not name is out.</p>
          <NewSound add={add} />
        </div>
      </>
    );
  }
  return (
    <div className="sounds">
      <div className="headline">
        <h1 style={{ overflowWrap: 'anywhere' }}>{chosen.name}</h1>
        <span className="soft">
          {shown?.slot ? `slot ${shown.slot}` : 'not stored anywhere'}{chosen.parent ? ` · from ${partOf(rig, chosen.parent)?.name}` : ''} · {shown && <VerdictText sound={shown} />}
          {shown?.verdict === 'cannot sound' || shown?.verdict === 'undecided' ? ` · ${shown.because}` : ''}
          {shown?.byFoot.length ? ` · by foot: ${shown.byFoot.join('; ')}` : ''}
          {shown?.byHand.length ? ` · by hand: ${shown.byHand.join('; ')}` : ''}
        </span>
        <div className="tools">
          <Button variant="default" size="xs" aria-expanded={detailed} onClick={() => detail(!detailed)}>Order, ends, pedals</Button>
          <Button variant="default" size="xs" aria-expanded={climbing} onClick={() => climb(!climbing)}>Gain ladder</Button>
          <Button variant="default" size="xs" aria-expanded={comparing} onClick={() => compare(!comparing)}>Compare</Button>
          <Button variant="default" size="xs" aria-expanded={showStored} onClick={() => setShowStored(!showStored)}>What is stored</Button>
          <Button size="xs" onClick={() => void navigate('../bench', { state: { call: chosen.id } })}>Try on the bench</Button>
        </div>
      </div>
      <div className="card" style={{ padding: '10px 14px' }}>
        {!comparing && run && <Run items={run} label={`Run of ${chosen.name}`} />}
        {comparing && <Compare sound={chosen} />}
        {showStored && stored?.map((s) => (
          <div key={s.device} style={{ borderTop: '1px solid var(--line)', marginTop: 8, paddingTop: 8 }}>
            <strong>{s.device}, slot {s.slot}</strong> <span className="soft">{s.typed ? 'as it was typed in' : 'as Yunta writes it'}: {s.contents || 'all loops off'}</span>
            <table className="plain"><tbody>{s.messages.map((m, i) => <tr key={i}><td className="mono" style={{ width: 220 }}>{m.bytes}</td><td>{m.for}</td></tr>)}</tbody></table>
          </div>
        ))}
      </div>
      {detailed && view && <Detail sound={chosen} scope={{ hookup: view.hookup, only: only && hookups.length > 1 }} />}
      {climbing && <GainLadder />}
      <div className="sheet-tools" style={{ marginTop: 12 }}>
        <SegmentedControl size="xs" aria-label="Which sheet" value={sheet} onChange={(v) => setSheet(v as typeof sheet)} data={[{ value: 'sounds', label: 'Sound sheet' }, { value: 'moves', label: `Moves ${rig.parts.move.size || ''}` }, { value: 'songs', label: `Songs ${rig.parts.song.size || ''}` }]} />
        {sheet === 'sounds' && (
          <>
            <TextInput size="xs" w={145} aria-label="Find sounds" placeholder="name, slot, role, song" value={arrangement.find} onChange={(e) => arrange({ ...arrangement, find: e.currentTarget.value })} />
            <Select size="xs" w={112} aria-label="Order of the rows" allowDeselect={false} data={SORTS} value={arrangement.sort} onChange={(v) => v && arrange({ ...arrangement, sort: v as Arrangement['sort'] })} />
            <Select size="xs" w={180} aria-label="Mark what changes" data={[{ value: '', label: '▸ against the row above' }, ...sounds.map((s) => ({ value: s.id as string, label: `▸ against ${s.name}` }))]} allowDeselect={false} searchable value={arrangement.against ?? ''} onChange={(v) => arrange({ ...arrangement, against: (v || undefined) as Id<'sound'> | undefined })} />
          </>
        )}
        {sheet !== 'songs' && <Select size="xs" w={126} aria-label="Show a control as a column" placeholder="Add a column" searchable data={controls} value={null} onChange={(v) => v && setMore([...more, v as Ref])} nothingFoundMessage="No such control" limit={60} />}
        {hookup && hookups.length > 1 && sheet === 'sounds' && <SegmentedControl size="xs" aria-label="Where holds what I type" value={only ? 'only' : 'all'} onChange={(v) => setOnly(v === 'only')} data={[{ value: 'all', label: 'I write for every hook-up' }, { value: 'only', label: `for ${hookup.name.length > 24 ? 'this one' : hookup.name} only` }]} />}
        {marks && <span className="soft">{WHERE_MARKS['only here']} only in {hookup.name}, {WHERE_MARKS['not everywhere']} otherwise in another</span>}
      </div>
      {sheet === 'sounds' && (
        <div className="sheet-tools">
          <strong className="clip" style={{ maxWidth: 220 }}>{chosen.name}</strong>
          <Select aria-label={`Role of ${chosen.name}`} size="xs" w={120} allowDeselect={false} data={[...ROLES]} value={chosen.role} onChange={(role) => role && edit(changeSound(chosen, { role: role as Role }), `${chosen.name}: role ${role}`)} />
          <Select aria-label={`When ${chosen.name} is left`} size="xs" w={150} allowDeselect={false} data={LEAVING} value={chosen.leaving ?? ''} onChange={(v) => v !== null && edit(setLeaving(chosen, (v || undefined) as Sound['leaving']), `${chosen.name}: ${LEAVING.find((l) => l.value === v)!.label}`)} />
          <Button variant="default" size="xs" onClick={() => add(`${cutTo(chosen.name, LONGEST.name - 2)} 2`, chosen.role, chosen.id)}>Derive from it</Button>
          <Button variant="default" size="xs" onClick={() => edit(removeSound(rig, chosen.id), `Remove ${chosen.name}`)}>Remove it</Button>
          <div style={{ marginLeft: 'auto' }}><NewSound add={add} compact /></div>
        </div>
      )}
      {complaint && <p role="alert" className="broken" style={{ margin: '4px 0' }}>{complaint}</p>}
      {view && sheet === 'sounds' && <SoundSheet view={view} columns={columns} scope={{ hookup: view.hookup, only: only && hookups.length > 1 }} arrangement={arrangement} chosen={chosen.id} choose={select} complain={complain} />}
      {sheet === 'songs' && <Songs complain={complain} />}
      {view && sheet === 'moves' && <Moves hookup={view.hookup} columns={columns} complain={complain} />}
    </div>
  );
};

const NewSound = ({ add, compact }: { add: (name: string, role: Role) => void; compact?: boolean }) => {
  const [name, setName] = useState('');
  const size = compact ? 'xs' : 'sm';
  return (
    <form style={{ display: 'flex', gap: 8, alignItems: 'end' }} onSubmit={(e) => { e.preventDefault(); if (fits(name, LONGEST.name)) { add(name.trim(), 'other'); setName(''); } }}>
      <TextField most={LONGEST.name} size={size} {...(compact ? { 'aria-label': 'Name of a new sound' } : { label: 'Name' })} placeholder="Verse clean" value={name} onChange={(e) => setName(e.currentTarget.value)} />
      <Button type="submit" size={size} variant={compact ? 'default' : 'filled'} disabled={!fits(name, LONGEST.name)}>Add a sound</Button>
    </form>
  );
};
