import { Button, TextInput } from '@mantine/core';
import {
  rangeText,
  readRange,
  setByText,
  withOwnSwitches,
  withPrograms,
  withSetBy,
} from '@yunta/core/catalogue/box-parts';
import type { Control, Device } from '@yunta/core/rig/device';
import type { Refusal, Result } from '@yunta/core/rig/result';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { TextField } from '../../shared/text-field.js';
import { setBy } from './box-inspector.js';
import { theFirst } from '@yunta/core/known/the';
import { Choice } from '../../shared/choice.js';

const POWER_UP = [
  { value: 'left', label: 'as you left it' },
  { value: 'loaded', label: 'as programmed' },
  { value: 'unknown', label: 'not known' },
] as const;
const USES = [
  { value: 'sound', label: 'by sounds' },
  { value: 'setting', label: 'once, a setting' },
  { value: 'play', label: 'while playing' },
] as const;
const PLAIN_FLOOR = /^(held|latch)-/;

interface OfBox {
  readonly device: Device;
  readonly change: (device: Device) => void;
}

const without = (device: Device, id: string): Device => ({
  ...device,
  controls: device.controls.filter((c) => c.id !== id),
  actuators: device.actuators.filter((a) => !a.acts.some((act) => 'control' in act && act.control === id)),
  memories: device.memories.map((m) => ({ ...m, stores: m.stores.filter((s) => s !== id) })),
});

/** Every control of a box: what it can be, what sets it, what holds it. */
export const Controls = ({ device, change }: OfBox) => {
  const shown = device.controls.filter((c) => !PLAIN_FLOOR.test(c.id));
  return (
    <section className="card">
      <h2>Controls</h2>
      {shown.length > 0 && (
        <table className="plain tight">
          <thead>
            <tr>
              <th>name</th>
              <th>range</th>
              <th>set by</th>
              <th>changed</th>
              <th>at power-up</th>
              {device.memories.length > 0 && <th>in programs</th>}
              <th>
                <span className="visually-hidden">take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((c) => (
              <ControlRow key={c.id} device={device} control={c} change={change} />
            ))}
          </tbody>
        </table>
      )}
      <MoreControls device={device} change={change} />
      <p className="soft box-hint">
        Range: <code>off, on</code> or <code>0..100 %</code>. Set by: <code>foot</code>, <code>cc 20</code> (sets it),{' '}
        <code>cc 20 turns</code> (turns it over), <code>contact remote</code> (open or closed),{' '}
        <code>pulse remote</code>, <code>pedal exp</code> or <code>pedal exp 10..60</code>, with commas between.
      </p>
    </section>
  );
};

const MoreControls = ({ device, change }: OfBox) => {
  const memory = device.memories[0];
  const add = () => {
    const id = `control${device.controls.length + 1}`;
    const made: Control = { id, domain: { values: ['off', 'on'] }, powerUp: 'left', use: 'sound' };
    change({ ...device, controls: [...device.controls, made] });
  };
  return (
    <div className="box-more">
      <Button size="compact-sm" variant="default" onClick={add}>
        Add a control
      </Button>
      {memory && memory.by === undefined && (
        <Button size="compact-sm" variant="default" onClick={() => change(withOwnSwitches(device))}>
          Its own switches call its programs
        </Button>
      )}
      {!memory && device.jacks.some((j) => j.kind === 'midi') && (
        <Button size="compact-sm" variant="default" onClick={() => change(withPrograms(device))}>
          Give it 128 programs
        </Button>
      )}
    </div>
  );
};

type OfControl = OfBox & { readonly control: Control };

const ControlRow = ({ device, control: c, change }: OfControl) => {
  const memory = device.memories[0];
  const set = (part: Partial<Control>) =>
    change({ ...device, controls: device.controls.map((other) => (other === c ? { ...c, ...part } : other)) });
  const store = (held: boolean) => {
    if (!memory) return;
    const stores = held ? [...memory.stores, c.id] : memory.stores.filter((s) => s !== c.id);
    change({ ...device, memories: device.memories.map((m) => (m === memory ? { ...m, stores } : m)) });
  };
  return (
    <tr>
      <td>
        <TextField
          most={LONGEST.name}
          size="xs"
          aria-label={`Name of ${c.id}`}
          value={c.name ?? c.id}
          onChange={(e) => set({ name: e.currentTarget.value })}
        />
        {c.name && c.name !== c.id ? <div className="soft mono small">{c.id}</div> : null}
      </td>
      <td>
        <Typed
          label={`Range of ${c.id}`}
          text={rangeText(c.domain)}
          read={(t) => {
            const r = readRange(t);
            if (r.ok) set({ domain: r.value });
            return r;
          }}
        />
      </td>
      <td>
        <SetBy device={device} control={c} change={change} />
      </td>
      <td>
        <Choice aria-label={`When ${c.id} is changed`} data={USES} value={c.use} choose={(use) => set({ use })} />
      </td>
      <td>
        <PowerUp control={c} set={set} />
      </td>
      {memory && (
        <td>
          {memory.control !== c.id && (
            <input
              type="checkbox"
              aria-label={`Programs hold ${c.id}`}
              checked={memory.stores.includes(c.id)}
              onChange={(e) => store(e.currentTarget.checked)}
            />
          )}
        </td>
      )}
      <td className="at-right">
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`Take out control ${c.id}`}
          onClick={() => change(without(device, c.id))}
        >
          Take out
        </Button>
      </td>
    </tr>
  );
};

const SetBy = ({ device, control: c, change }: OfControl) => (
  <>
    <Typed
      label={`What sets ${c.id}`}
      text={setByText(device, c.id)}
      read={(t) => {
        const r = withSetBy(device, c.id, t);
        if (r.ok) change(r.value);
        return r;
      }}
    />
    {setByText(device, c.id) === '' && setBy(device, c) !== 'nothing' && (
      <div className="soft small">{setBy(device, c)}</div>
    )}
  </>
);

const PowerUp = ({ control: c, set }: { control: Control; set: (part: Partial<Control>) => void }) => (
  <Choice<'at' | 'left' | 'unknown' | 'loaded'>
    aria-label={`${c.id} at power-up`}
    data={typeof c.powerUp === 'object' ? [{ value: 'at', label: `always ${c.powerUp.at}` }, ...POWER_UP] : POWER_UP}
    value={typeof c.powerUp === 'object' ? 'at' : c.powerUp}
    choose={(powerUp) => powerUp !== 'at' && set({ powerUp })}
  />
);

/** A text that is taken when the field is left, or said to be wrong. */
const Typed = ({
  label,
  text,
  read,
}: {
  label: string;
  text: string;
  read: (text: string) => Result<unknown, readonly Refusal[]>;
}) => {
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState('');
  const take = () => {
    if (typed === undefined) return;
    const result = read(typed);
    setWrong(result.ok ? '' : `${theFirst(result.error).wrong} ${theFirst(result.error).would}`);
    if (result.ok) setTyped(undefined);
  };
  return (
    <TextInput
      size="xs"
      aria-label={label}
      value={typed ?? text}
      error={wrong}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === 'Enter' && take()}
      styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)' } }}
    />
  );
};
