import { Button, MultiSelect } from '@mantine/core';
import { withOwnSwitches, withPrograms } from '@yunta/core/catalogue/box-parts';
import { withMaybe } from '@yunta/core/known/maybe';
import { saysNumbers } from '@yunta/core/midi/numbering';
import type { Device, Memory, MidiManners } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok } from '@yunta/core/rig/result';
import type { ReactNode } from 'react';
import { Choice } from '../../../shared/choice.js';
import { TypedText } from '../../../shared/typed-text.js';
import { Numbered } from '../../../shared/numbered.js';

interface OfBox {
  readonly device: Device;
  readonly change: (device: Device) => void;
}
interface OfMemory extends OfBox {
  readonly memory: Memory;
  readonly set: (part: Partial<Memory>) => void;
}

const MOST_PROGRAMS = 16_384;
const LONGEST_MS = 60_000;

const AGAIN = [
  { value: 'reloads', label: 'loads it anew' },
  { value: 'nothing', label: 'does nothing' },
] as const;
const MEANWHILE = [
  { value: 'lost', label: 'are lost' },
  { value: 'queued', label: 'wait and are carried out' },
] as const;
const CALLED = [
  { value: 'not', label: 'not by itself: another box does' },
  { value: 'slot', label: 'its own switches' },
  { value: 'song', label: 'a song list' },
  { value: 'cue', label: 'cues of a timeline' },
] as const;
const YES_NO = [
  { value: 'yes', label: 'yes' },
  { value: 'no', label: 'no' },
] as const;

/** What a box remembers, how it counts and how long it takes, and how it gets on with MIDI. */
export const Programs = ({ device, change }: OfBox) => (
  <>
    {device.memories.map((memory, i) => (
      <MemoryFields
        key={i}
        device={device}
        memory={memory}
        change={change}
        set={(part) => change({ ...device, memories: device.memories.with(i, { ...memory, ...part }) })}
      />
    ))}
    {device.memories.length === 0 && (
      <section className="card">
        <h2>Programs</h2>
        <p className="soft">It remembers nothing.</p>
        {device.jacks.some((j) => j.kind === 'midi') ? (
          <Button size="compact-sm" variant="default" onClick={() => change(withPrograms(device))}>
            Give it 128 programs
          </Button>
        ) : (
          <p className="soft">A MIDI jack is what calls programs: add one under Jacks.</p>
        )}
      </section>
    )}
    {device.midi && <Manners device={device} midi={device.midi} change={change} />}
  </>
);

const Fields = ({ children }: { children: ReactNode }) => <div className="fields">{children}</div>;

const MemoryFields = ({ device, memory, change, set }: OfMemory) => {
  const own = () => change(withOwnSwitches(device));
  return (
    <section className="card">
      <h2>Programs: {memory.id}</h2>
      <Fields>
        <Numbered
          shown
          label="How many"
          min={1}
          max={MOST_PROGRAMS}
          value={memory.size}
          save={(size) => set({ size })}
        />
        <Choice<NonNullable<Memory['by']> | 'not'>
          label="Called by"
          data={CALLED}
          value={memory.by ?? 'not'}
          choose={(by) =>
            by === 'slot' && !memory.switches ? own() : set(withMaybe(memory, 'by', by === 'not' ? undefined : by))
          }
        />
        <Choice label="The same program again" data={AGAIN} value={memory.again} choose={(again) => set({ again })} />
        <Numbered
          shown
          decimal
          label="Loads in, ms"
          max={LONGEST_MS}
          value={memory.gapMs}
          save={(gapMs) => set({ gapMs })}
        />
        <Numbered
          shown
          decimal
          label="Silent meanwhile, ms"
          max={LONGEST_MS}
          value={memory.mutesMs}
          save={(mutesMs) => set({ mutesMs })}
        />
        {device.memories.length > 1 && (
          <Choice
            label="Lies inside"
            data={[
              { value: '', label: 'nothing' },
              ...device.memories.filter((m) => m !== memory).map((m) => ({ value: m.id, label: m.id })),
            ]}
            value={memory.inside ?? ''}
            choose={(inside) => change(replaced(device, memory, withMaybe(memory, 'inside', inside || undefined)))}
          />
        )}
      </Fields>
      <Counts device={device} memory={memory} change={change} set={set} />
      <Holds device={device} memory={memory} change={change} set={set} />
      <Limits device={device} memory={memory} change={change} set={set} />
      <Reminders device={device} memory={memory} change={change} set={set} />
      <Assignable device={device} memory={memory} change={change} set={set} />
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => change({ ...device, memories: device.memories.filter((m) => m !== memory) })}
      >
        Take {memory.id} out
      </Button>
    </section>
  );
};

const replaced = (device: Device, memory: Memory, next: Memory): Device => ({
  ...device,
  memories: device.memories.map((m) => (m === memory ? next : m)),
});

/** How the display counts what the wire counts from 0. */
const Counts = ({ memory, set }: OfMemory) => {
  const { shows } = memory;
  const { bank } = shows;
  const banked = (part: Partial<NonNullable<typeof bank>>) =>
    set({
      shows: {
        ...shows,
        bank: {
          size: bank?.size ?? 4,
          first: bank?.first ?? 1,
          ...(bank?.letters ? { letters: bank.letters } : {}),
          ...part,
        },
      },
    });
  return (
    <>
      <h3>How its display counts</h3>
      <Fields>
        <Choice
          label="First number"
          data={['0', '1'] as const}
          value={shows.first === 0 ? '0' : '1'}
          choose={(first) => set({ shows: { ...shows, first: first === '0' ? 0 : 1 } })}
        />
        <Numbered
          shown
          label="Places in a bank"
          min={1}
          max={128}
          value={bank?.size}
          save={(size) => banked({ size })}
          clear={() => set({ shows: withMaybe(shows, 'bank', undefined) })}
        />
        {bank && (
          <>
            <Numbered shown label="First bank" max={999} value={bank.first} save={(first) => banked({ first })} />
            <Choice
              label="Places are"
              data={['numbers', 'letters'] as const}
              value={bank.letters ? 'letters' : 'numbers'}
              choose={(are) =>
                set({
                  shows: {
                    ...shows,
                    bank: withMaybe(
                      bank,
                      'letters',
                      are === 'letters' ? 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'.slice(0, bank.size) : undefined,
                    ),
                  },
                })
              }
            />
          </>
        )}
      </Fields>
      <p className="soft">Its display: {saysNumbers(shows, memory.size)}.</p>
    </>
  );
};

/** What its programs hold, which switches call them, and which control keeps the bank that shows. */
const Holds = ({ device, memory, change, set }: OfMemory) => {
  const controls = device.controls.filter((c) => c.id !== memory.control);
  const options = controls.map((c) => ({ value: c.id, label: c.name ?? c.id }));
  const feet = [...new Set(device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : [])))];
  const { bank } = memory;
  return (
    <div className="fields wide">
      <MultiSelect
        size="xs"
        label="Programs hold"
        data={options}
        value={[...memory.stores]}
        onChange={(stores) => set({ stores })}
      />
      <MultiSelect
        size="xs"
        label="Can be told to hold too"
        data={options.filter((o) => !memory.stores.includes(o.value))}
        value={[...(memory.mayStore ?? [])]}
        onChange={(mayStore) =>
          change(replaced(device, memory, withMaybe(memory, 'mayStore', mayStore.length ? mayStore : undefined)))
        }
      />
      {feet.length > 0 && (
        <MultiSelect
          size="xs"
          label="Switches that call them, in the order of a bank"
          data={feet}
          value={[...(memory.switches ?? [])]}
          onChange={(switches) =>
            change(replaced(device, memory, withMaybe(memory, 'switches', switches.length ? switches : undefined)))
          }
        />
      )}
      {bank && (
        <div className="fields">
          <Choice
            label="Bank kept by"
            data={options}
            value={bank.control}
            choose={(control) => set({ bank: { ...bank, control } })}
          />
          <Choice label="Bank up" data={feet} value={bank.up} choose={(up) => set({ bank: { ...bank, up } })} />
          <Choice label="Bank down" data={feet} value={bank.down} choose={(down) => set({ bank: { ...bank, down } })} />
        </div>
      )}
      <Choice
        label="Which program is loaded, kept by"
        data={device.controls.map((c) => ({ value: c.id, label: c.name ?? c.id }))}
        value={memory.control}
        choose={(control) => set({ control, stores: memory.stores.filter((s) => s !== control) })}
      />
    </div>
  );
};

const LIMITS = [
  ['messages', 'Messages at most'],
  ['assigns', 'Assigned switches at most'],
  ['assignments', 'Things assigned to them at most'],
  ['nameLength', 'Letters of a name'],
] as const;

const Limits = ({ device, memory, change }: OfMemory) => {
  const limits = memory.limits ?? {};
  const put = (next: NonNullable<Memory['limits']>) =>
    change(replaced(device, memory, withMaybe(memory, 'limits', Object.keys(next).length ? next : undefined)));
  return (
    <>
      <h3>What one program can hold</h3>
      <Fields>
        {LIMITS.map(([key, label]) => (
          <Numbered
            key={key}
            shown
            max={999}
            label={label}
            value={limits[key]}
            save={(n) => put({ ...limits, [key]: n })}
            clear={() => put(withMaybe(limits, key, undefined))}
          />
        ))}
        <Choice
          label="Can wait between messages"
          data={YES_NO}
          value={limits.waits === false ? 'no' : 'yes'}
          choose={(is) => put(withMaybe(limits, 'waits', is === 'no' ? false : undefined))}
        />
        <Choice
          label="Can hold a tempo"
          data={YES_NO}
          value={limits.clock ? 'yes' : 'no'}
          choose={(is) => put(withMaybe(limits, 'clock', is === 'yes' ? true : undefined))}
        />
      </Fields>
    </>
  );
};

const REMINDERS = [
  ['program', 'In every program'],
  ['assign', 'For every assigned switch'],
] as const;

/** What is easily forgotten in front of the box; each becomes a line to tick where the box is typed in. */
const Reminders = ({ device, memory, change }: OfMemory) => {
  const reminders = memory.reminders ?? {};
  const read = (key: (typeof REMINDERS)[number][0], text: string) => {
    const list = text
      .split(';')
      .map((one) => one.trim())
      .filter(Boolean);
    const next = withMaybe(reminders, key, list.length ? list : undefined);
    change(replaced(device, memory, withMaybe(memory, 'reminders', Object.keys(next).length ? next : undefined)));
    return ok(undefined);
  };
  return (
    <>
      <h3>Easily forgotten</h3>
      <Fields>
        {REMINDERS.map(([key, label]) => (
          <div key={key}>
            <span className="soft">{label}</span>
            <TypedText
              most={LONGEST.remark}
              label={`Easily forgotten: ${label.toLowerCase()}`}
              placeholder="one thing; another"
              text={(reminders[key] ?? []).join('; ')}
              read={(text) => read(key, text)}
            />
          </div>
        ))}
      </Fields>
    </>
  );
};

/** Switches that a program may give something to do, each with two controls that remember how it stands. */
const Assignable = ({ device, memory, change }: OfMemory) => {
  const places = memory.assignable ?? [];
  const feet = [...new Set(device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : [])))];
  const free = feet.filter((f) => !places.some((p) => p.switch === f) && !memory.switches?.includes(f));
  const drop = (foot: string) => {
    const left = places.filter((p) => p.switch !== foot);
    const box = replaced(device, memory, withMaybe(memory, 'assignable', left.length ? left : undefined));
    change({ ...box, controls: box.controls.filter((c) => c.id !== `latch-${foot}` && c.id !== `held-${foot}`) });
  };
  if (places.length === 0 && free.length === 0) return null;
  return (
    <>
      <h3>Switches that a program may assign</h3>
      <ul className="switch-list inline">
        {places.map((place) => (
          <li key={place.switch}>
            {place.switch}{' '}
            <Button
              size="compact-xs"
              variant="default"
              aria-label={`No longer assignable: ${place.switch}`}
              onClick={() => drop(place.switch)}
            >
              ✕
            </Button>
          </li>
        ))}
      </ul>
      {free.length > 0 && (
        <Choice
          aria-label="Let programs assign"
          w={260}
          data={[{ value: '', label: 'Let programs assign …' }, ...free.map((f) => ({ value: f, label: f }))]}
          value=""
          choose={(foot) => foot && change(assignable(device, memory, foot))}
        />
      )}
    </>
  );
};

const REMEMBERED = { domain: { values: ['off', 'on'] }, powerUp: { at: 'off' }, use: 'play' } as const;

const assignable = (device: Device, memory: Memory, foot: string): Device => {
  const [latch, held] = [`latch-${foot}`, `held-${foot}`];
  const box = replaced(device, memory, {
    ...memory,
    assignable: [...(memory.assignable ?? []), { switch: foot, latch, held }],
  });
  return {
    ...box,
    controls: [...box.controls, { id: latch, ...REMEMBERED }, { id: held, ...REMEMBERED }],
    actuators: [
      ...box.actuators.filter((a) => !('foot' in a.by && a.by.foot === foot)),
      ...(['press', 'release'] as const).map((gesture) => ({
        id: gesture === 'press' ? foot : `${foot} let go`,
        by: { foot, gesture },
        acts: [{ follow: foot, gesture }],
      })),
    ],
  };
};

const Manners = ({ device, midi, change }: OfBox & { readonly midi: MidiManners }) => {
  const put = (part: Partial<MidiManners>) => change({ ...device, midi: { ...midi, ...part } });
  const settings = device.controls
    .filter((c) => c.use === 'setting')
    .map((c) => ({ value: c.id, label: `kept by ${c.name ?? c.id}` }));
  return (
    <section className="card">
      <h2>MIDI</h2>
      <Fields>
        <Choice
          label="Channel"
          data={[
            ...Array.from({ length: 16 }, (_, i) => ({ value: String(i + 1), label: String(i + 1) })),
            ...settings,
          ]}
          value={String(midi.channel)}
          choose={(channel) => put({ channel: /^\d+$/.test(channel) ? Number(channel) : channel })}
        />
        <Choice
          label="Answers to all channels"
          data={YES_NO}
          value={midi.omni ? 'yes' : 'no'}
          choose={(is) => change({ ...device, midi: withMaybe(midi, 'omni', is === 'yes' ? true : undefined) })}
        />
        <Choice
          label="Messages while it loads"
          data={MEANWHILE}
          value={midi.messages}
          choose={(messages) => put({ messages })}
        />
      </Fields>
    </section>
  );
};
