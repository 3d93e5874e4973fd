import { Button, NativeSelect, TextInput } from '@mantine/core';
import { rangeText, readRange, setByText, withOwnSwitches, withPrograms, withSetBy } from '@yunta/core/catalogue/box-parts';
import type { Control, Device } from '@yunta/core/rig/device';
import type { Refusal, Result } from '@yunta/core/rig/result';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { TextField } from '../../app/text-field.js';
import { setBy } from './box-inspector.js';

const POWER_UP = [{ value: 'left', label: 'as it was left' }, { value: 'loaded', label: 'as programmed' }, { value: 'unknown', label: 'not known' }];
const USES = [{ value: 'sound', label: 'by sounds' }, { value: 'setting', label: 'once, a setting' }, { value: 'play', label: 'while playing' }];
const PLAIN_FLOOR = /^(held|latch)-/;

/** Every control of a box: what it can be, what sets it, what holds it. */
export const Controls = ({ device, change }: { device: Device; change: (device: Device) => void }) => {
  const memory = device.memories[0];
  const shown = device.controls.filter((c) => !PLAIN_FLOOR.test(c.id));
  const set = (id: string, part: Partial<Control>) => change({ ...device, controls: device.controls.map((c) => (c.id === id ? { ...c, ...part } : c)) });
  const store = (id: string, held: boolean) => memory && change({ ...device, memories: device.memories.map((m) => (m === memory ? { ...m, stores: held ? [...m.stores, id] : m.stores.filter((s) => s !== id) } : m)) });
  const add = () => {
    const id = `control${device.controls.length + 1}`;
    change({ ...device, controls: [...device.controls, { id, domain: { values: ['off', 'on'] }, powerUp: 'left', use: 'sound' }] });
  };
  const takeOut = (id: string) => change({
    ...device, controls: device.controls.filter((c) => c.id !== id), actuators: device.actuators.filter((a) => !a.acts.some((act) => 'control' in act && act.control === id)), memories: device.memories.map((m) => ({ ...m, stores: m.stores.filter((s) => s !== id) })),
  });
  return (
    <section className="card">
      <h2>Controls</h2>
      {shown.length > 0 && (
        <table className="plain tight">
          <thead><tr><th>name</th><th>range</th><th>set by</th><th>changed</th><th>at power-up</th>{memory && <th>in programs</th>}<th><span className="visually-hidden">take out</span></th></tr></thead>
          <tbody>
            {shown.map((c) => (
              <tr key={c.id}>
                <td><TextField most={LONGEST.name} size="xs" aria-label={`Name of ${c.id}`} value={c.name ?? c.id} onChange={(e) => set(c.id, { name: e.currentTarget.value })} />{c.name && c.name !== c.id ? <div className="soft mono" style={{ fontSize: 13 }}>{c.id}</div> : null}</td>
                <td><Typed label={`Range of ${c.id}`} text={rangeText(c.domain)} read={(t) => { const r = readRange(t); if (r.ok) set(c.id, { domain: r.value }); return r; }} /></td>
                <td><Typed label={`What sets ${c.id}`} text={setByText(device, c.id)} read={(t) => { const r = withSetBy(device, c.id, t); if (r.ok) change(r.value); return r; }} />{setByText(device, c.id) === '' && setBy(device, c) !== 'nothing' && <div className="soft" style={{ fontSize: 13 }}>{setBy(device, c)}</div>}</td>
                <td><NativeSelect size="xs" aria-label={`When ${c.id} is changed`} data={USES} value={c.use} onChange={(e) => set(c.id, { use: e.currentTarget.value as Control['use'] })} /></td>
                <td><NativeSelect size="xs" aria-label={`${c.id} at power-up`} data={typeof c.powerUp === 'object' ? [{ value: 'at', label: `always ${c.powerUp.at}` }, ...POWER_UP] : POWER_UP} value={typeof c.powerUp === 'object' ? 'at' : c.powerUp} onChange={(e) => e.currentTarget.value !== 'at' && set(c.id, { powerUp: e.currentTarget.value as 'left' })} /></td>
                {memory && <td>{memory.control !== c.id && <input type="checkbox" aria-label={`Programs hold ${c.id}`} checked={memory.stores.includes(c.id)} onChange={(e) => store(c.id, e.currentTarget.checked)} />}</td>}
                <td style={{ textAlign: 'right' }}><Button size="compact-xs" variant="default" aria-label={`Take out control ${c.id}`} onClick={() => takeOut(c.id)}>Take out</Button></td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div style={{ display: 'flex', gap: 8, marginTop: 8 }}>
        <Button size="compact-sm" variant="default" onClick={add}>Add a control</Button>
        {memory && memory.by === undefined && <Button size="compact-sm" variant="default" onClick={() => change(withOwnSwitches(device))}>Its own switches call its programs</Button>}
        {!memory && device.jacks.some((j) => j.kind === 'midi') && <Button size="compact-sm" variant="default" onClick={() => change(withPrograms(device))}>Give it 128 programs</Button>}
      </div>
      <p className="soft" style={{ margin: '6px 0 0', fontSize: 14 }}>Range: <code>off, on</code> or <code>0..100 %</code>. Set by: <code>foot</code>, <code>cc 20</code> (sets it), <code>cc 20 turns</code> (turns it over), <code>contact remote</code> (open or closed), <code>pulse remote</code>, <code>pedal exp</code> or <code>pedal exp 10..60</code>, with commas between.</p>
    </section>
  );
};

/** A text that is taken when the field is left, or said to be wrong. */
const Typed = ({ label, text, read }: { label: string; text: string; read: (text: string) => Result<unknown, readonly Refusal[]> }) => {
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState('');
  const take = () => {
    if (typed === undefined) return;
    const result = read(typed);
    setWrong(result.ok ? '' : `${result.error[0]!.wrong} ${result.error[0]!.would}`);
    if (result.ok) setTyped(undefined);
  };
  return <TextInput size="xs" aria-label={label} value={typed ?? text} error={wrong} onChange={(e) => setTyped(e.currentTarget.value)} onBlur={take} onKeyDown={(e) => e.key === 'Enter' && take()} styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)' } }} />;
};
