import { Button, SegmentedControl, Select, TextInput } from '@mantine/core';
import { addSound, changeSound, giveSlots, removeSound, setLeaving } from '@yunta/core/edits/sounds';
import { together } from '@yunta/core/change/edit';
import { all, partOf, soundsInOrder } from '@yunta/core/rig/rig';
import { ROLES, type Role, type Sound } from '@yunta/core/rig/sound';
import type { Id } from '@yunta/core/rig/ids';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useAsked, useRig } from '../../app/rig-context.js';
import { Run } from '../../picture/run.js';
import { newPartId } from '../../session/ids.js';
import { Compare } from './compare.js';
import { GainLadder } from './gain-ladder.js';
import { Sheet, WHERE_MARKS } from './sheet.js';

const LEAVING = [{ value: '', label: 'tails as they come' }, { value: 'ring', label: 'left, it rings out' }, { value: 'cut', label: 'left, it stops' }];

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
  const [only, setOnly] = useState(false);
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
          {shown?.slot ? `slot ${shown.slot}` : 'not stored anywhere'}{chosen.parent ? ` · from ${partOf(rig, chosen.parent)?.name}` : ''} · {shown?.verdict === 'proved' ? <span className="proved">proved</span> : shown?.verdict === 'broken' ? <span className="broken">can come back wrong</span> : 'not decided'}
          {shown?.byHand.length ? ` · by hand: ${shown.byHand.join('; ')}` : ''}
        </span>
        <div className="tools">
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
      {climbing && <GainLadder />}
      <div style={{ display: 'flex', gap: 12, alignItems: 'center', margin: '12px 0 6px', flexWrap: 'wrap' }}>
        <strong>Sound sheet</strong><span className="soft">a wedge marks what changes from the row above{marks ? `; ${WHERE_MARKS['only here']} only in ${hookup.name}, ${WHERE_MARKS['not everywhere']} otherwise in another hook-up` : ''}</span>
        {hookup && hookups.length > 1 && <SegmentedControl size="xs" aria-label="Where holds what I type" value={only ? 'only' : 'all'} onChange={(v) => setOnly(v === 'only')} data={[{ value: 'all', label: 'I write for every hook-up' }, { value: 'only', label: `for ${hookup.name.length > 24 ? 'this one' : hookup.name} only` }]} />}
        <div style={{ marginLeft: 'auto', display: 'flex', gap: 8, alignItems: 'center', flexWrap: 'wrap' }}>
          <Select aria-label={`Role of ${chosen.name}`} size="xs" w={120} allowDeselect={false} data={[...ROLES]} value={chosen.role} onChange={(role) => role && edit(changeSound(chosen, { role: role as Role }), `${chosen.name}: role ${role}`)} />
          <Select aria-label={`When ${chosen.name} is left`} size="xs" w={150} allowDeselect={false} data={LEAVING} value={chosen.leaving ?? ''} onChange={(v) => v !== null && edit(setLeaving(chosen, (v || undefined) as Sound['leaving']), `${chosen.name}: ${LEAVING.find((l) => l.value === v)!.label}`)} />
          <Button variant="default" size="xs" onClick={() => add(`${chosen.name} 2`.slice(0, 120), chosen.role, chosen.id)}>Derive from it</Button>
          <Button variant="default" size="xs" onClick={() => edit(removeSound(rig, chosen.id), `Remove ${chosen.name}`)}>Remove it</Button>
          <NewSound add={add} compact />
        </div>
      </div>
      {complaint && <p role="alert" className="broken" style={{ margin: '4px 0' }}>{complaint}</p>}
      {view && <Sheet view={view} scope={{ hookup: view.hookup, only: only && hookups.length > 1 }} chosen={chosen.id} choose={select} complain={complain} />}
    </div>
  );
};

const NewSound = ({ add, compact }: { add: (name: string, role: Role) => void; compact?: boolean }) => {
  const [name, setName] = useState('');
  const size = compact ? 'xs' : 'sm';
  return (
    <form style={{ display: 'flex', gap: 8, alignItems: 'end' }} onSubmit={(e) => { e.preventDefault(); if (name.trim()) { add(name.trim(), 'other'); setName(''); } }}>
      <TextInput size={size} {...(compact ? { 'aria-label': 'Name of a new sound' } : { label: 'Name' })} placeholder="Verse clean" maxLength={120} value={name} onChange={(e) => setName(e.currentTarget.value)} />
      <Button type="submit" size={size} variant={compact ? 'default' : 'filled'} disabled={!name.trim()}>Add a sound</Button>
    </form>
  );
};
