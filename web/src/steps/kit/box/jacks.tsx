import { Button, Menu, NativeSelect, NumberInput } from '@mantine/core';
import { addJack, NEW_JACKS } from '@yunta/core/catalogue/new-jacks';
import { LONGEST } from '@yunta/core/rig/limits';
import { JACK_WAYS, wayOf } from '@yunta/core/catalogue/box-parts';
import { CONNECTORS, JACK_KINDS, type Device, type Jack } from '@yunta/core/rig/device';
import { ok, refuse, type Refusal } from '@yunta/core/rig/result';
import { TypedText } from '../../../shared/typed-text.js';
import type { Draft } from './use-draft.js';
import { keysOf } from '@yunta/core/known/keys';
import { Choice } from '../../../shared/choice.js';

const LEVELS = ['instrument', 'line', 'mic', 'speaker', 'phones'] as const;

/** Each value of a control that a contact can follow, as a text: `relay1 = closed`. */
const followed = (device: Device): readonly { readonly value: string; readonly label: string }[] =>
  device.controls.flatMap((c) =>
    'values' in c.domain
      ? c.domain.values.map((v) => ({ value: JSON.stringify([c.id, v]), label: `closed while ${c.id} is ${v}` }))
      : [],
  );

/** Every jack of a box, with what its poles do. */
export const Jacks = ({ draft }: { draft: Draft }) => {
  const { device, change, rename } = draft;
  const { jacks } = device;
  const save = (next: readonly Jack[]) => change({ ...device, jacks: next });
  return (
    <section className="card">
      <h2>Jacks</h2>
      <table className="plain tight">
        <thead>
          <tr>
            <th>name</th>
            <th>kind</th>
            <th>plug</th>
            <th>what it does</th>
            <th>level, or what a contact does</th>
            <th>ohms</th>
            <th>
              <span className="visually-hidden">take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {jacks.map((jack, i) => (
            <JackRow
              key={i}
              device={device}
              jack={jack}
              at={i}
              save={(next) => save(jacks.with(i, next))}
              rename={(to) => rename({ of: 'jack', from: jack.id, to })}
              takeOut={() => save(jacks.filter((_, k) => k !== i))}
            />
          ))}
        </tbody>
      </table>
      <Menu position="bottom-start">
        <Menu.Target>
          <Button mt={8} size="compact-sm" variant="default">
            Add a jack
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {keysOf(NEW_JACKS).map((kind) => (
            <Menu.Item key={kind} onClick={() => change(addJack(device, kind))}>
              {NEW_JACKS[kind].says}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    </section>
  );
};

const taken = (name: string): Refusal => ({
  code: 'jack',
  where: '',
  wrong: name ? `There is a jack "${name}" already.` : 'It needs a name.',
  would: 'Type another.',
});

interface JackRowProps {
  readonly device: Device;
  readonly jack: Jack;
  /** Its place among the jacks of the box. */
  readonly at: number;
  readonly save: (jack: Jack) => void;
  readonly rename: (to: string) => void;
  readonly takeOut: () => void;
}

const JackRow = ({ device, jack, at, save, rename, takeOut }: JackRowProps) => {
  const set = (part: Partial<Jack>) => save({ ...jack, ...part });
  return (
    <tr>
      <td>
        <TypedText
          most={LONGEST.word}
          label={`Name of jack ${at + 1}`}
          text={jack.id}
          read={(text) => {
            const to = text
              .trim()
              .toLowerCase()
              .replaceAll(/[^a-z0-9-]+/g, '-');
            if (to === jack.id) return ok(to);
            if (!to || device.jacks.some((j) => j.id === to)) return refuse([taken(to)]);
            rename(to);
            return ok(to);
          }}
        />
      </td>
      <td>
        <Choice
          aria-label={`Kind of ${jack.id}`}
          data={JACK_KINDS}
          value={jack.kind}
          choose={(kind) => set({ kind })}
        />
      </td>
      <td>
        <Choice
          aria-label={`Plug of ${jack.id}`}
          data={CONNECTORS}
          value={jack.connector}
          choose={(connector) => set({ connector })}
        />
      </td>
      <td>
        <Choice
          aria-label={`What ${jack.id} does`}
          data={keysOf(JACK_WAYS)}
          value={wayOf(jack)}
          choose={(way) => set({ poles: JACK_WAYS[way] })}
        />
      </td>
      <td>
        <Does device={device} jack={jack} save={save} />
      </td>
      <td className="ohms">
        {jack.kind === 'audio' && (
          <NumberInput
            size="xs"
            aria-label={`Impedance of ${jack.id} in ohms`}
            hideControls
            thousandSeparator=" "
            min={1}
            max={100_000_000}
            value={jack.ohm ?? ''}
            onChange={(v) => typeof v === 'number' && set({ ohm: v })}
          />
        )}
      </td>
      <td className="at-right">
        <Button size="compact-xs" variant="default" aria-label={`Take out jack ${jack.id}`} onClick={takeOut}>
          Take out
        </Button>
      </td>
    </tr>
  );
};

/** The level of an audio jack; what closes a contact. */
const Does = ({ device, jack, save }: Pick<JackRowProps, 'device' | 'jack' | 'save'>) => (
  <>
    {jack.kind === 'audio' && (
      <Choice
        aria-label={`Level of ${jack.id}`}
        data={LEVELS}
        value={jack.level ?? 'instrument'}
        choose={(level) => save({ ...jack, level })}
      />
    )}
    {jack.kind === 'contact' && jack.poles.tip === 'out' && (
      <Follows
        name={jack.id}
        rule={jack.closedWhen}
        options={followed(device)}
        save={(rule) => save(withRule(jack, 'closedWhen', rule))}
      />
    )}
    {jack.kind === 'contact' && jack.poles.ring === 'out' && (
      <Follows
        name={`the ring of ${jack.id}`}
        rule={jack.ringClosedWhen}
        options={followed(device)}
        save={(rule) => save(withRule(jack, 'ringClosedWhen', rule))}
      />
    )}
  </>
);

const withRule = (jack: Jack, which: 'closedWhen' | 'ringClosedWhen', rule: Jack['closedWhen']): Jack => {
  const { [which]: _, ...rest } = jack;
  return rule ? { ...rest, [which]: rule } : rest;
};

const NEVER = 'only for a moment, by pulses';
const Follows = ({
  name,
  rule,
  options,
  save,
}: {
  name: string;
  rule: Jack['closedWhen'];
  options: readonly { readonly value: string; readonly label: string }[];
  save: (rule: Jack['closedWhen']) => void;
}) => {
  const fact = rule?.[0];
  const value = fact && 'in' in fact ? JSON.stringify([fact.control, fact.in[0]]) : '';
  return (
    <NativeSelect
      size="xs"
      aria-label={`When ${name} is closed`}
      data={[{ value: '', label: NEVER }, ...options]}
      value={value}
      onChange={(e) => {
        if (!e.currentTarget.value) return save(undefined);
        const [control, is]: [string, string] = JSON.parse(e.currentTarget.value);
        save([{ control, in: [is] }]);
      }}
    />
  );
};
