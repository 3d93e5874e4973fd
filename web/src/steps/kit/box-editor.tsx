import { Button, NativeSelect, NumberInput, Textarea, TextInput } from '@mantine/core';
import { JACK_WAYS, rangeText, readRange, setByText, wayOf, withPrograms, withSetBy, type JackWay } from '@yunta/core/catalogue/box-parts';
import { insideText, readInside } from '@yunta/core/catalogue/inside';
import { apply } from '@yunta/core/change/apply';
import { changeDevice } from '@yunta/core/edits/devices';
import { CONNECTORS, JACK_KINDS, ZONES, type Control, type Device, type Jack } from '@yunta/core/rig/device';
import type { Refusal, Result } from '@yunta/core/rig/result';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useRig } from '../../app/rig-context.js';
import { Inside } from '../../picture/inside.js';
import { setBy } from './box-inspector.js';
import { ZONE_NAMES } from './zone-names.js';

const ORIGINS = [{ value: 'assumed', label: 'assumed' }, { value: 'maker', label: "the maker's figure" }, { value: 'measured', label: 'measured' }];
const LEVELS = ['instrument', 'line', 'mic', 'speaker', 'phones'];
const MOST_SAID = 5;

/** All of a box: its jacks, what lies between them as lines that are drawn while they are typed, its controls, its figures. A draft until it is kept. */
export const BoxEditor = ({ device, close, shelve, shelved }: { device: Device; close: () => void; shelve: (device: Device) => void; shelved: boolean }) => {
  const { rig, edit } = useRig();
  const top = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    void top.current?.scrollIntoView({ block: 'end' });
  }, []);
  const [draft, setDraft] = useState(device);
  const [lines, setLines] = useState(() => insideText(device.chains));
  const inside = useMemo(() => readInside(lines, device.chains), [lines, device.chains]);
  const wish = useMemo((): Device => (inside.ok ? { ...draft, chains: inside.value } : draft), [draft, inside]);
  const refused = useMemo((): readonly Refusal[] => {
    if (!inside.ok) return inside.error;
    const applied = apply(rig, changeDevice(wish, {}));
    return applied.ok ? [] : applied.error;
  }, [rig, wish, inside]);
  const change = (part: Partial<Device>) => setDraft({ ...draft, ...part });
  const keep = () => {
    if (edit(changeDevice(wish, {}), `Rebuild ${wish.code} ${wish.name}`).length === 0) close();
  };
  return (
    <div className="box-editor">
      <div className="headline">
        <h1 ref={top}><span className="mono">{draft.code}</span> {draft.name}</h1>{shelved && <span className="soft" role="status">on your shelf</span>}
        <div className="tools">
          <Button size="xs" variant="default" disabled={refused.length > 0} onClick={() => shelve(wish)}>Save to my shelf</Button>
          <Button size="xs" variant="default" onClick={close}>Leave it as it was</Button>
          <Button size="xs" disabled={refused.length > 0} onClick={keep}>Keep</Button>
        </div>
      </div>
      {refused.length > 0 && (
        <div className="card alarm" role="status">
          <strong>Not yet a box that can be kept.</strong>
          <ul style={{ margin: '4px 0 0', paddingLeft: 18 }}>{refused.slice(0, MOST_SAID).map((r) => <li key={`${r.where} ${r.wrong}`}>{r.where ? `${r.where}: ` : ''}{r.wrong} {r.would}</li>)}</ul>
          {refused.length > MOST_SAID && <span className="soft">and {refused.length - MOST_SAID} more</span>}
        </div>
      )}
      <section className="card">
        <h2>Inside</h2>
        <div className="inside-drawn"><Inside chains={wish.chains} /></div>
        <Textarea
          aria-label="Chains, one a line" autosize minRows={2} maxRows={14} value={lines} onChange={(e) => setLines(e.currentTarget.value)} spellCheck={false} styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)', fontSize: 13 } }} error={!inside.ok}
        />
        <details className="soft" style={{ marginTop: 6, fontSize: 14 }}>
          <summary>How to write it</summary>
          <p style={{ margin: '6px 0' }}>One chain a line: <code>name: jack &gt; stage &gt; stage &gt; jack</code>. Jacks that share a chain are joined by <code>+</code>, a side is <code>@left</code> or <code>@right</code>.</p>
          <p style={{ margin: '6px 0' }}>When: <code>overdrive [on=on]</code>, <code>in-l [in-r unplugged]</code> (a normal), <code>[mix=0..50]</code>. How: <code>delay (spread)</code>, <code>(sum)</code>, <code>(each)</code>.</p>
          <p style={{ margin: '6px 0' }}>An insert: <code>loop1:&lt;send1 / return1&gt; [loop1=on]</code>, with <code>(broken)</code> if it is silent while nothing is plugged in, <code>(breaks=send)</code>, <code>(direct)</code>. A fork: <code>channel:{'{ clean [channel=clean]: preamp | lead [channel=lead]: preamp > boost }'}</code>.</p>
        </details>
      </section>
      <Jacks jacks={draft.jacks} save={(jacks) => change({ jacks })} />
      <Controls device={draft} change={setDraft} />
      <Plate device={draft} change={change} />
    </div>
  );
};

const Jacks = ({ jacks, save }: { jacks: readonly Jack[]; save: (jacks: readonly Jack[]) => void }) => {
  const set = (i: number, part: Partial<Jack>) => save(jacks.map((j, k) => (k === i ? { ...j, ...part } : j)));
  return (
    <section className="card">
      <h2>Jacks</h2>
      <table className="plain tight">
        <thead><tr><th>name</th><th>kind</th><th>plug</th><th>what it does</th><th>level</th><th>ohms</th><th><span className="visually-hidden">take out</span></th></tr></thead>
        <tbody>
          {jacks.map((jack, i) => (
            <tr key={i}>
              <td><TextInput size="xs" aria-label={`Name of jack ${i + 1}`} maxLength={40} value={jack.id} onChange={(e) => set(i, { id: e.currentTarget.value.toLowerCase().replaceAll(/[^a-z0-9-]/g, '-') })} /></td>
              <td><NativeSelect size="xs" aria-label={`Kind of ${jack.id}`} data={[...JACK_KINDS]} value={jack.kind} onChange={(e) => set(i, { kind: e.currentTarget.value as Jack['kind'] })} /></td>
              <td><NativeSelect size="xs" aria-label={`Plug of ${jack.id}`} data={[...CONNECTORS]} value={jack.connector} onChange={(e) => set(i, { connector: e.currentTarget.value as Jack['connector'] })} /></td>
              <td><NativeSelect size="xs" aria-label={`What ${jack.id} does`} data={Object.keys(JACK_WAYS)} value={wayOf(jack)} onChange={(e) => set(i, { poles: JACK_WAYS[e.currentTarget.value as JackWay] })} /></td>
              <td>{jack.kind === 'audio' && <NativeSelect size="xs" aria-label={`Level of ${jack.id}`} data={LEVELS} value={jack.level ?? 'instrument'} onChange={(e) => set(i, { level: e.currentTarget.value as 'line' })} />}</td>
              <td style={{ width: 110 }}>{jack.kind === 'audio' && <NumberInput size="xs" aria-label={`Impedance of ${jack.id} in ohms`} hideControls thousandSeparator=" " min={1} max={100_000_000} value={jack.ohm ?? ''} onChange={(v) => typeof v === 'number' && set(i, { ohm: v })} />}</td>
              <td style={{ textAlign: 'right' }}><Button size="compact-xs" variant="default" aria-label={`Take out jack ${jack.id}`} onClick={() => save(jacks.filter((_, k) => k !== i))}>Take out</Button></td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button mt={8} size="compact-sm" variant="default" onClick={() => save([...jacks, { id: `jack${jacks.length + 1}`, kind: 'audio', connector: '6.35 TS', poles: { tip: 'in' }, level: 'instrument', ohm: 1_000_000 }])}>Add a jack</Button>
    </section>
  );
};

const POWER_UP = [{ value: 'left', label: 'as it was left' }, { value: 'loaded', label: 'as programmed' }, { value: 'unknown', label: 'not known' }];
const USES = [{ value: 'sound', label: 'by sounds' }, { value: 'setting', label: 'once, a setting' }, { value: 'play', label: 'while playing' }];
const PLAIN_FLOOR = /^(held|latch)-/;

const Controls = ({ device, change }: { device: Device; change: (device: Device) => void }) => {
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
                <td><span className="mono">{c.id}</span>{c.name && c.name !== c.id ? <div className="soft">{c.name}</div> : null}</td>
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
        {!memory && device.jacks.some((j) => j.kind === 'midi') && <Button size="compact-sm" variant="default" onClick={() => change(withPrograms(device))}>Give it 128 programs</Button>}
      </div>
      <p className="soft" style={{ margin: '6px 0 0', fontSize: 14 }}>Range: <code>off, on</code> or <code>0..100 %</code>. Set by: <code>foot</code>, <code>cc 20</code> (sets it), <code>cc 20 turns</code> (turns it over), with commas between.</p>
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
  return <TextInput size="xs" aria-label={label} maxLength={400} value={typed ?? text} error={wrong} onChange={(e) => setTyped(e.currentTarget.value)} onBlur={take} onKeyDown={(e) => e.key === 'Enter' && take()} styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)' } }} />;
};

const Plate = ({ device, change }: { device: Device; change: (part: Partial<Device>) => void }) => {
  const { figures } = device;
  const [w, d, h] = figures.mm ?? [0, 0, 0];
  const side = (i: number, v: number | string) => typeof v === 'number' && change({ figures: { ...figures, mm: [w, d, h].map((x, k) => (k === i ? v : x)) as [number, number, number] } });
  return (
    <section className="card">
      <h2>Plate and figures</h2>
      <div className="plate">
        <TextInput size="xs" label="Name" maxLength={120} value={device.name} onChange={(e) => change({ name: e.currentTarget.value })} />
        <TextInput size="xs" label="Code" maxLength={4} value={device.code} onChange={(e) => change({ code: e.currentTarget.value.toUpperCase() })} />
        <NativeSelect size="xs" label="Where it stands" data={ZONES.map((z) => ({ value: z, label: ZONE_NAMES[z] }))} value={device.zone} onChange={(e) => change({ zone: e.currentTarget.value as Device['zone'] })} />
        <NumberInput size="xs" label="Width, mm" hideControls min={0} max={3000} value={w || ''} onChange={(v) => side(0, v)} />
        <NumberInput size="xs" label="Depth, mm" hideControls min={0} max={3000} value={d || ''} onChange={(v) => side(1, v)} />
        <NumberInput size="xs" label="Height, mm" hideControls min={0} max={3000} value={h || ''} onChange={(v) => side(2, v)} />
        <NumberInput size="xs" label="Weight, kg" hideControls min={0} max={200} decimalScale={2} value={figures.kg ?? ''} onChange={(v) => typeof v === 'number' && change({ figures: { ...figures, kg: v } })} />
        <NativeSelect size="xs" label="These figures are" data={ORIGINS} value={figures.origin ?? 'assumed'} onChange={(e) => change({ figures: { ...figures, origin: e.currentTarget.value as 'assumed' } })} />
      </div>
    </section>
  );
};
