import { Button, NumberInput, Select } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { assume, doNotAssume } from '@yunta/core/edits/hookups';
import { controlText, valueText } from '@yunta/core/recall/words';
import { ref, splitRef, type Ref } from '@yunta/core/rig/ids';
import { all } from '@yunta/core/rig/rig';
import { restingValue } from '@yunta/core/signal/state';
import { useState } from 'react';
import { useRig } from '../../app/rig-context.js';
import { fits, TextField } from '../../app/text-field.js';

/** What the player says nobody touches: taped, at full. It becomes the first lines of the line check. */
export const Assume = () => {
  const { rig, hookup, edit } = useRig();
  const [chosen, choose] = useState<Ref>();
  const [value, setValue] = useState<string | number>('');
  const [why, setWhy] = useState('');
  const [refused, refuse] = useState('');
  if (!hookup) return null;
  const controls = all(rig, 'device').flatMap((d) => d.controls.filter((c) => !/^(held-|latch-)/.test(c.id) && !d.memories.some((m) => m.by === 'slot' && m.control === c.id)).map((c) => ({ value: ref(d.id, c.id), label: `${controlText(rig, ref(d.id, c.id))}, ${d.name}` })));
  const control = chosen && rig.parts.device.get(splitRef(chosen).device)?.controls.find((c) => c.id === splitRef(chosen).name);
  const add = () => {
    if (!chosen || !why.trim()) return;
    const wrong = edit(assume(hookup, chosen, value, why.trim()), `Taken for granted: ${controlText(rig, chosen)} ${value}`);
    refuse(wrong.map((r) => `${r.wrong} ${r.would}`).join(' '));
    if (wrong.length === 0) {
      choose(undefined);
      setWhy('');
    }
  };
  return (
    <>
      {hookup.assumes.length > 0 && (
        <ul className="assumed no-print">
          {hookup.assumes.map((a) => (
            <li key={a.control}>{controlText(rig, a.control)} {valueText(rig, a.control, a.value)} <Button variant="default" size="compact-xs" aria-label={`Not any more: ${controlText(rig, a.control)}`} onClick={() => edit(doNotAssume(hookup, a.control), `Not taken for granted: ${controlText(rig, a.control)}`)}>Not any more</Button></li>
          ))}
        </ul>
      )}
      <form className="no-print" style={{ display: 'grid', gap: 8, marginTop: 12 }} onSubmit={(e) => { e.preventDefault(); add(); }}>
        <Select size="xs" label="Take something for granted" placeholder="what nobody touches" searchable clearable data={controls} value={chosen ?? null} limit={60} nothingFoundMessage="No such control" onChange={(v) => {
          choose((v ?? undefined) as Ref | undefined);
          const found = v && rig.parts.device.get(splitRef(v).device)?.controls.find((c) => c.id === splitRef(v).name);
          if (found) setValue(restingValue(found));
        }} />
        {control && (
          <>
            {'values' in control.domain && <Select size="xs" label="It stands at" allowDeselect={false} data={control.domain.values.map(String)} value={String(value)} onChange={(v) => v !== null && setValue(('values' in control.domain ? control.domain.values.find((x) => String(x) === v) : undefined) ?? v)} />}
            {'min' in control.domain && <NumberInput size="xs" label="It stands at" min={control.domain.min} max={control.domain.max} clampBehavior="strict" value={Number(value)} onChange={(v) => typeof v === 'number' && setValue(v)} />}
            <TextField most={LONGEST.remark} size="xs" label="Why" placeholder="taped; a guitar tech watches it" value={why} onChange={(e) => setWhy(e.currentTarget.value)} />
            <Button type="submit" size="xs" variant="default" disabled={!fits(why, LONGEST.remark)}>Take it for granted</Button>
          </>
        )}
        {refused && <p role="alert" className="broken" style={{ margin: 0 }}>{refused}</p>}
      </form>
    </>
  );
};
