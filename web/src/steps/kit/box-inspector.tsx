import { Button, NumberInput, Select } from '@mantine/core';
import { saysNumbers, shown } from '@yunta/core/midi/numbering';
import { changeDevice, removeDevice } from '@yunta/core/edits/devices';
import { domainText } from '@yunta/core/rig/domain';
import {
  controlIn,
  makesSound,
  type Actuator,
  type Control,
  type Device,
  type Memory,
  type Numbering,
} from '@yunta/core/rig/device';
import { ORIGIN_WORDS } from '@yunta/core/rig/figure-source';
import { someOf } from '@yunta/core/known/some-of';
import { Remedies } from '../../shared/remedies.js';
import { useRig } from '../../shared/rig-context.js';
import { UsedIn } from '../../shared/use-of-box.js';
import { Swap } from './swap.js';
import { PowerUp, powerUpText } from './box/power-up.js';
import { KeptField } from '../../shared/kept-field.js';
import { surely, theOne } from '@yunta/core/known/the';
import { memoryChosenBy } from '@yunta/core/rig/box';

const NUMBERINGS: readonly { readonly value: string; readonly label: string; readonly shows: Numbering }[] = [
  { value: '0', label: 'counts from 0', shows: { first: 0 } },
  { value: '1', label: 'counts from 1', shows: { first: 1 } },
  ...[2, 3, 4, 5, 8, 10].map((size) => ({
    value: `1/${size}`,
    label: `banks of ${size}, from 1`,
    shows: { first: 1 as const, bank: { size, first: 1 } },
  })),
  ...[3, 4, 5].map((size) => ({
    value: `1/${size}L`,
    label: `banks of ${size} with letters`,
    shows: { first: 1 as const, bank: { size, first: 1, letters: 'ABCDEFGH'.slice(0, size) } },
  })),
];
const numberingOf = (shows: Numbering): string =>
  NUMBERINGS.find((n) => JSON.stringify(n.shows) === JSON.stringify(shows))?.value ?? '';

/** @example wakesText(compressor) // 'as you left it' */
export const wakesText = (device: Device): string => {
  const main =
    device.controls.find((c) => device.memories.some((m) => m.control === c.id)) ??
    device.controls.find((c) => c.use === 'sound');
  const memory = memoryChosenBy(device, main?.id);
  if (memory && typeof main?.powerUp === 'object') return `always ${shown(memory.shows, Number(main.powerUp.at))}`;
  return main ? powerUpText(main) : '';
};

const byText = ({ by, acts }: Actuator): string => {
  const what = acts.some((a) => 'toggle' in a || 'step' in a) ? ' turns it over' : ' sets it';
  if ('midi' in by)
    return by.midi === 'cc'
      ? `controller ${by.number}${what}`
      : by.midi === 'pc'
        ? 'program change'
        : by.midi === 'note'
          ? `note ${by.number} (not used yet)`
          : by.midi;
  if ('foot' in by) return `foot${what}`;
  if ('hand' in by) return `hand${what}`;
  if ('contact' in by) return 'level' in by ? 'contact sets it' : 'pulse turns it over';
  if ('expression' in by) return 'a pedal moves it';
  return 'position' in by ? `${by.position} (not used yet)` : 'it is switched on';
};

/** What can set a control: its own actuators, and programs that hold it. */
export const setBy = (device: Device, control: Control): string =>
  [
    ...device.memories.filter((m) => m.stores.includes(control.id)).map(() => 'program'),
    ...new Set(
      device.actuators
        .filter((a) =>
          a.acts.some(
            (act) =>
              ('control' in act && act.control === control.id) ||
              ('load' in act && device.memories.some((m) => m.id === act.load && m.control === control.id)),
          ),
        )
        .map(byText),
    ),
  ].join(', ') || 'nothing';

export const BoxInspector = ({ device, open }: { device: Device; open: () => void }) => {
  const { edit, rig, select, view } = useRig();
  const change: Change = (part, what) => edit(changeDevice(device, part), `${device.code}: ${what}`);
  const findings = view?.findings.filter((f) => !f.accepted && f.evidence[0] === device.id) ?? [];
  return (
    <aside className="card" aria-label={`${device.code} ${device.name}`}>
      <h2>
        <span className="mono">{device.code}</span> {device.name}
      </h2>
      <div style={{ display: 'grid', gridTemplateColumns: '1fr 84px', gap: 8 }}>
        <KeptField label="Name" value={device.name} most={120} save={(name) => change({ name }, 'name')} />
        <KeptField
          label="Code"
          value={device.code}
          most={4}
          save={(code) => change({ code: code.toUpperCase() }, 'code')}
        />
      </div>
      {device.midi && (
        <div style={{ display: 'grid', gridTemplateColumns: '100px 1fr', gap: 8, marginTop: 8 }}>
          <NumberInput
            label="MIDI channel"
            min={1}
            max={16}
            clampBehavior="strict"
            allowDecimal={false}
            value={typeof device.midi.channel === 'number' ? device.midi.channel : ''}
            onChange={(v) =>
              typeof v === 'number' &&
              v >= 1 &&
              v <= 16 &&
              change({ midi: { ...surely(device.midi), channel: v } }, `MIDI channel ${v}`)
            }
          />
          {device.memories[0] && (
            <Numberings
              memory={device.memories[0]}
              save={(shows) =>
                change({ memories: device.memories.map((m, i) => (i === 0 ? { ...m, shows } : m)) }, 'numbering')
              }
            />
          )}
        </div>
      )}
      <Again device={device} change={change} />
      <UsedIn device={device.id} code={device.code} />
      <Resets device={device} />
      <CanBeSet device={device} change={change} />
      {findings.map((f) => (
        <div key={f.fingerprint} className="card alarm" style={{ marginTop: 10 }}>
          <p style={{ margin: '0 0 8px' }}>{f.why}</p>
          <Remedies finding={f} />
        </div>
      ))}
      <Button size="xs" variant="default" mt={12} onClick={open}>
        Open the box
      </Button>
      <Swap device={device} />
      <p className="soft" style={{ fontSize: 13 }}>
        Figures without a note of their own: {ORIGIN_WORDS[device.figures.origin ?? 'assumed']}.
      </p>
      <Button
        variant="default"
        size="xs"
        onClick={() => {
          if (edit(removeDevice(rig, device.id), `Take ${device.name} out of the kit`).length === 0) select(undefined);
        }}
      >
        Take it out of the kit
      </Button>
    </aside>
  );
};

type Change = (part: Partial<Omit<Device, 'id' | 'kind'>>, what: string) => void;

interface OfBox {
  readonly device: Device;
  readonly change: Change;
}

/** What becomes of a knob that somebody turned, when the next preset or scene comes. */
const Resets = ({ device }: { device: Device }) => {
  const presets = device.memories.find((m) => m.by === 'slot' && m.inside === undefined);
  if (!presets || !makesSound(device)) return null;
  const names = (ids: readonly string[]) => ids.map((id) => controlIn(device, id)?.name ?? id);
  const leaves = (stores: readonly string[]) =>
    device.controls
      .filter((c) => c.use === 'sound' && 'min' in c.domain && !stores.includes(c.id))
      .filter((c) => !device.memories.some((m) => m.control === c.id))
      .map((c) => c.id);
  const says = (what: string, stores: readonly string[]) => {
    const left = names(leaves(stores));
    return left.length
      ? `${what} leaves as it was turned: ${someOf(left, 4)}.`
      : `${what} takes back whatever was turned by hand.`;
  };
  const scenes = device.memories.find((m) => m.inside === presets.id);
  return (
    <p className="soft">
      {says('A preset', presets.stores)} {scenes && says('A scene', scenes.stores)}
    </p>
  );
};

/** Whether a program that is chosen again is loaded anew. */
const Again = ({ device, change }: OfBox) => {
  const [memory] = device.memories;
  if (!memory || (memory.by === 'slot' && !makesSound(device))) return null;
  const set = (again: Memory['again']) => {
    const memories = device.memories.map((m) => (m === memory ? { ...m, again } : m));
    change({ memories }, 'what choosing the same program does');
  };
  return (
    <Select
      mt={8}
      label="Choosing the same program again"
      allowDeselect={false}
      data={[
        { value: 'reloads', label: 'loads it anew' },
        { value: 'nothing', label: 'does nothing' },
      ]}
      value={memory.again}
      onChange={(again) => again && set(again)}
    />
  );
};

/** What of a box can be set and by what, and how each comes up. */
const CanBeSet = ({ device, change }: OfBox) => {
  const settable = device.controls.filter(
    (c) => !/^(held|latch)-/.test(c.id) && c.id !== 'bank' && !/^loop\d/.test(c.id),
  );
  if (settable.length === 0) return null;
  return (
    <table className="plain can-be-set">
      <thead>
        <tr>
          <th>can be set, by what</th>
          <th>at power-up</th>
        </tr>
      </thead>
      <tbody>
        {settable.map((control) => (
          <tr key={control.id}>
            <td title={domainText(control)}>
              <strong>{control.name ?? control.id}</strong>
              <div className="soft small">{setBy(device, control)}</div>
            </td>
            <td>
              <PowerUp
                control={control}
                save={(powerUp) =>
                  change(
                    { controls: device.controls.map((c) => (c === control ? { ...c, powerUp } : c)) },
                    `${control.name ?? control.id} at power-up`,
                  )
                }
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
};

const Numberings = ({ memory, save }: { memory: Memory; save: (shows: Numbering) => void }) => (
  <Select
    label="Numbers"
    description={saysNumbers(memory.shows, memory.size)}
    inputWrapperOrder={['label', 'input', 'description']}
    allowDeselect={false}
    data={NUMBERINGS.map(({ value, label }) => ({ value, label }))}
    value={numberingOf(memory.shows)}
    onChange={(v) => v && save(theOne(NUMBERINGS, (n) => n.value === v).shows)}
  />
);
