import { Button, Menu } from '@mantine/core';
import { rangeText, readRange, setByText, withSetBy } from '@yunta/core/catalogue/box-parts';
import { freshName, withoutControl } from '@yunta/core/catalogue/inside-edits';
import type { Control, Device, Domain } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import type { Renaming } from '@yunta/core/rig/renaming';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { TypedText } from '../../../shared/typed-text.js';
import { setBy } from '../box-inspector.js';
import { PowerUp } from './power-up.js';
import type { Draft } from './use-draft.js';

const USES = [
  { value: 'sound', label: 'by sounds' },
  { value: 'setting', label: 'once, a setting' },
  { value: 'play', label: 'while playing' },
  { value: 'held', label: 'held till let go' },
] as const;

/** How a control is used, with what a foot holds told apart. */
const useOf = ({ use, latches }: Control) => (latches ? 'held' : use);
const usedAs = (c: Control, use: (typeof USES)[number]['value']): Control => {
  const { latches: _, ...rest } = c;
  return use === 'held' ? { ...rest, use: 'play', latches: true } : { ...rest, use };
};
const PLAIN_FLOOR = /^(held|latch)-/;

const NEW: readonly { readonly label: string; readonly wish: string; readonly domain: Domain }[] = [
  { label: 'a switch: off, on', wish: 'switch', domain: { values: ['off', 'on'] } },
  { label: 'positions with names, such as channels', wish: 'channel', domain: { values: ['clean', 'lead'] } },
  { label: 'a knob: an amount', wish: 'knob', domain: { min: 0, max: 10, unit: '' } },
];

/** Every control of a box: what it is called, what it can be, what sets it, what holds it. */
export const Controls = ({ draft }: { draft: Draft }) => {
  const { device, change } = draft;
  const shown = device.controls.filter((c) => !PLAIN_FLOOR.test(c.id));
  const add = (wish: string, domain: Domain) => {
    const id = freshName(
      device.controls.map((c) => c.id),
      wish,
    );
    change({ ...device, controls: [...device.controls, { id, domain, powerUp: 'left', use: 'sound' }] });
  };
  return (
    <section className="card">
      <h2>Controls</h2>
      {shown.length > 0 && (
        <table className="plain tight">
          <thead>
            <tr>
              <th>name</th>
              <th>can be</th>
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
              <ControlRow key={c.id} draft={draft} control={c} />
            ))}
          </tbody>
        </table>
      )}
      <Menu position="bottom-start">
        <Menu.Target>
          <Button mt={8} size="compact-sm" variant="default">
            Add a control
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {NEW.map(({ label, wish, domain }) => (
            <Menu.Item key={wish} onClick={() => add(wish, domain)}>
              {label}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <p className="soft box-hint">
        Can be: positions with commas between them, such as clean, crunch, lead; or an amount, such as 0..100 %. A
        position that is called otherwise is called so in every sound.
      </p>
    </section>
  );
};

/** What became of the positions of a control: those in the same place with another name are the same. */
const renamedPositions = ({ id, domain }: Control, next: Domain): readonly Renaming[] => {
  if (!('values' in domain) || !('values' in next) || domain.values.length !== next.values.length) return [];
  const { values } = domain;
  return next.values.flatMap((to, i): readonly Renaming[] => {
    const from = values[i];
    return typeof from === 'string' && typeof to === 'string' && !values.includes(to) && !next.values.includes(from)
      ? [{ of: 'value', control: id, from, to }]
      : [];
  });
};

interface OfControl {
  readonly draft: Draft;
  readonly control: Control;
}

const ControlRow = ({ draft, control: c }: OfControl) => {
  const { device, change, rename } = draft;
  const memory = device.memories[0];
  const called = c.name ?? c.id;
  const set = (part: Partial<Control>) =>
    change({ ...device, controls: device.controls.map((other) => (other === c ? { ...c, ...part } : other)) });
  const become = (next: Control) =>
    change({ ...device, controls: device.controls.map((other) => (other === c ? next : other)) });
  const store = (held: boolean) => {
    if (!memory) return;
    const stores = held ? [...memory.stores, c.id] : memory.stores.filter((s) => s !== c.id);
    change({ ...device, memories: device.memories.map((m) => (m === memory ? { ...m, stores } : m)) });
  };
  const range = (text: string) => {
    const read = readRange(text);
    if (!read.ok) return read;
    const renamed = renamedPositions(c, read.value);
    if (renamed.length > 0) rename(...renamed);
    else set({ domain: read.value });
    return read;
  };
  return (
    <tr>
      <td>
        <KeptField
          most={LONGEST.name}
          size="xs"
          aria-label={`Name of ${called}`}
          value={called}
          save={(name) => set({ name })}
        />
      </td>
      <td>
        <TypedText most={LONGEST.value} label={`What ${called} can be`} text={rangeText(c.domain)} read={range} />
      </td>
      <td>
        <SetBy draft={draft} control={c} />
      </td>
      <td>
        <Choice
          aria-label={`When ${called} is changed`}
          data={USES}
          value={useOf(c)}
          choose={(use) => become(usedAs(c, use))}
        />
      </td>
      <td>
        <PowerUp control={c} save={(powerUp) => set({ powerUp })} />
      </td>
      {memory && (
        <td>
          {memory.control !== c.id && (
            <input
              type="checkbox"
              aria-label={`Programs hold ${called}`}
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
          aria-label={`Take out control ${called}`}
          onClick={() => change(withoutControl(device, c.id))}
        >
          Take out
        </Button>
      </td>
    </tr>
  );
};

const FIRST_CONTROLLER = 20;
const HIGHEST_CONTROLLER = 127;

/** What can set a control of this box, as words that are typed or chosen from a list. */
const ways = (device: Device, control: Control): readonly { readonly word: string; readonly label: string }[] => {
  const taken = new Set(device.actuators.flatMap(({ by }) => ('midi' in by && by.midi === 'cc' ? [by.number] : [])));
  let free = FIRST_CONTROLLER;
  while (taken.has(free) && free < HIGHEST_CONTROLLER) free += 1;
  const jacks = (kind: string) =>
    device.jacks.filter((j) => j.kind === kind && (j.poles.tip === 'in' || j.poles.ring === 'in'));
  const isAmount = 'min' in control.domain;
  return [
    ...(isAmount ? [] : [{ word: 'foot', label: 'a foot switch' }]),
    { word: `cc ${free}`, label: 'a controller sets it' },
    ...(isAmount ? [] : [{ word: `cc ${free} turns`, label: 'a controller turns it over' }]),
    ...jacks('contact').flatMap((j) =>
      isAmount
        ? []
        : [
            { word: `contact ${j.id}`, label: `a contact at ${j.id}, as long as it stays` },
            { word: `pulse ${j.id}`, label: `a pulse at ${j.id} turns it over` },
          ],
    ),
    ...(isAmount ? jacks('expression').map((j) => ({ word: `pedal ${j.id}`, label: `a pedal at ${j.id}` })) : []),
  ];
};

const SetBy = ({ draft, control: c }: OfControl) => {
  const { device, change } = draft;
  const called = c.name ?? c.id;
  const text = setByText(device, c.id);
  const read = (typed: string) => {
    const result = withSetBy(device, c.id, typed);
    if (result.ok) change(result.value);
    return result;
  };
  const others = ways(device, c).filter((way) => !text.split(', ').includes(way.word));
  return (
    <div className="set-by">
      <TypedText most={LONGEST.value} label={`What sets ${called}`} text={text} read={read} />
      <Menu position="bottom-end">
        <Menu.Target>
          <Button size="compact-xs" variant="default" aria-label={`Something else sets ${called}`}>
            +
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {others.map(({ word, label }) => (
            <Menu.Item key={word} onClick={() => read([text, word].filter(Boolean).join(', '))}>
              {label}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      {text === '' && setBy(device, c) !== 'nothing' && <div className="soft small">{setBy(device, c)}</div>}
    </div>
  );
};
