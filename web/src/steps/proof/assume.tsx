import { Button, NumberInput, Select } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { assume, doNotAssume } from '@yunta/core/edits/hookups';
import { controlText } from '@yunta/core/recall/words/words';
import type { Control } from '@yunta/core/rig/device';
import type { Hookup } from '@yunta/core/rig/hookup';
import { ref, theRef, type Ref } from '@yunta/core/rig/ids';
import { all, type Rig } from '@yunta/core/rig/rig';
import type { Value } from '@yunta/core/rig/value';
import { restingValue } from '@yunta/core/signal/graph/state';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { fits, TextField } from '../../shared/text-field.js';
import { controlAt } from '@yunta/core/rig/box';

/** Takes back that something is taken for granted, where the hook-up says so. */
export const NotAnyMore = ({ control }: { control: Ref }) => {
  const { rig, hookup, edit } = useRig();
  if (!hookup?.assumes.some((a) => a.control === control)) return null;
  const name = controlText(rig, control);
  return (
    <Button
      className="no-print"
      variant="default"
      size="compact-xs"
      aria-label={`Not any more: ${name}`}
      onClick={() => edit(doNotAssume(hookup, control), `Not taken for granted: ${name}`)}
    >
      Not any more
    </Button>
  );
};

/** What can be taken for granted: not which slot is loaded, nor what a switch of a controller remembers. */
const grantable = (rig: Rig): { value: Ref; label: string }[] =>
  all(rig, 'device').flatMap((d) =>
    d.controls
      .filter((c) => !/^(held-|latch-)/.test(c.id) && !d.memories.some((m) => m.by === 'slot' && m.control === c.id))
      .map((c) => ({ value: ref(d.id, c.id), label: `${controlText(rig, ref(d.id, c.id))}, ${d.name}` })),
  );

/** What the player says nobody touches: taped, at full. It becomes the first lines of the line check. */
export const TakeForGranted = ({ hookup }: { hookup: Hookup }) => {
  const { rig, edit } = useRig();
  const [chosen, choose] = useState<Ref>();
  const [value, setValue] = useState<Value>('');
  const [why, setWhy] = useState('');
  const [refused, refuse] = useState('');
  const control = chosen && controlAt(rig, chosen);
  const pick = (picked: string | null) => {
    const control = picked ? theRef(picked) : undefined;
    const found = control && controlAt(rig, control);
    choose(found && control);
    if (found) setValue(restingValue(found));
  };
  const add = () => {
    if (!chosen || !why.trim()) return;
    const label = `Taken for granted: ${controlText(rig, chosen)} ${value}`;
    const wrong = edit(assume(hookup, chosen, value, why.trim()), label);
    refuse(wrong.map((r) => `${r.wrong} ${r.would}`).join(' '));
    if (wrong.length > 0) return;
    choose(undefined);
    setWhy('');
  };
  return (
    <form
      className="no-print take-for-granted"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Select
        size="xs"
        label="Take something for granted"
        placeholder="what nobody touches"
        searchable
        clearable
        data={grantable(rig)}
        value={chosen ?? null}
        limit={60}
        nothingFoundMessage="No such control"
        onChange={pick}
      />
      {control && (
        <>
          <StandsAt control={control} value={value} setValue={setValue} />
          <TextField
            most={LONGEST.remark}
            size="xs"
            label="Why"
            placeholder="taped; a guitar tech watches it"
            value={why}
            onChange={(e) => setWhy(e.currentTarget.value)}
          />
          <Button type="submit" size="xs" variant="default" disabled={!fits(why, LONGEST.remark)}>
            Take it for granted
          </Button>
        </>
      )}
      {refused && (
        <p role="alert" className="broken">
          {refused}
        </p>
      )}
    </form>
  );
};

interface StandsAtProps {
  readonly control: Control;
  readonly value: Value;
  readonly setValue: (value: Value) => void;
}

const StandsAt = ({ control: { domain }, value, setValue }: StandsAtProps) => {
  if ('values' in domain) {
    const pick = (text: string | null) =>
      text !== null && setValue(domain.values.find((v) => String(v) === text) ?? text);
    return (
      <Select
        size="xs"
        label="It stands at"
        allowDeselect={false}
        data={domain.values.map(String)}
        value={String(value)}
        onChange={pick}
      />
    );
  }
  if (!('min' in domain)) return null;
  return (
    <NumberInput
      size="xs"
      label="It stands at"
      min={domain.min}
      max={domain.max}
      clampBehavior="strict"
      value={Number(value)}
      onChange={(v) => typeof v === 'number' && setValue(v)}
    />
  );
};
