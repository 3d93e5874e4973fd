import { Button, MultiSelect } from '@mantine/core';
import type { Control, Device } from '@yunta/core/rig/device';
import type { Fact, When } from '@yunta/core/rig/value';
import { LARGEST_NUMBER } from '@yunta/core/rig/limits';
import { Choice } from '../choice.js';
import { Numbered } from '../numbered.js';

const PLUGGED = [
  { value: 'plugged', label: 'has a plug in it' },
  { value: 'unplugged', label: 'is empty' },
] as const;

const nameOf = (control: Control): string => control.name ?? control.id;

/** Which program is loaded, which bank shows, what a switch remembers: nothing in the signal hangs on that. */
const isPlainFloor = (device: Device, { id }: Control): boolean =>
  /^(held|latch)-/.test(id) || device.memories.some((m) => m.control === id || m.bank?.control === id);

/** What a condition can ask: a control that has positions or an amount, or whether something is plugged in. */
const subjects = (device: Device): readonly { readonly value: string; readonly label: string }[] => [
  ...[...device.controls]
    .filter((c) => !('arrange' in c.domain) && !isPlainFloor(device, c))
    .sort((a, b) => Number('min' in a.domain) - Number('min' in b.domain))
    .map((c) => ({ value: `control ${c.id}`, label: nameOf(c) })),
  ...device.jacks.map((j) => ({ value: `jack ${j.id}`, label: `jack ${j.id}` })),
];

const subjectOf = (fact: Fact): string => ('jack' in fact ? `jack ${fact.jack}` : `control ${fact.control}`);

const PREFERRED = /^(on|closed)$/;
/** A first condition about something, to be made more exact. */
const factAbout = (device: Device, subject: string): Fact => {
  const name = subject.slice(subject.indexOf(' ') + 1);
  if (subject.startsWith('jack')) return { jack: name, plugged: true };
  const domain = device.controls.find((c) => c.id === name)?.domain;
  if (domain && 'min' in domain) return { control: name, from: domain.min, to: domain.max };
  const values = domain && 'values' in domain ? domain.values : [];
  return { control: name, in: [values.find((v) => PREFERRED.test(String(v))) ?? values.at(-1) ?? 'on'] };
};

/** To say more than one position, any of which will do. */
const SEVERAL = 'one of several …';

interface ConditionsProps {
  readonly device: Device;
  /** What hangs on it, for whoever hears the fields read out. */
  readonly of: string;
  readonly when: When | undefined;
  readonly save: (when: When | undefined) => void;
  /** What holds while there is no condition. @example 'always in' */
  readonly always: string;
}

/** When something holds, as choices: while a control stands somewhere, while a jack has a plug in it; all must be so. */
export const Conditions = ({ device, of, when = [], save, always }: ConditionsProps) => {
  const offered = subjects(device);
  const put = (facts: When) => save(facts.length ? facts : undefined);
  const add = () => {
    const free = offered.find((s) => !when.some((f) => subjectOf(f) === s.value));
    if (free) put([...when, factAbout(device, free.value)]);
  };
  return (
    <div className="conditions">
      {when.length === 0 && <span className="soft">{always}</span>}
      {when.map((fact, i) => (
        <div key={i} className="condition">
          <Choice
            aria-label={`${of}: while`}
            leftSection={<span className="soft while">{i === 0 ? 'while' : 'and'}</span>}
            leftSectionWidth={44}
            data={
              offered.some((s) => s.value === subjectOf(fact))
                ? offered
                : [...offered, { value: subjectOf(fact), label: `${subjectOf(fact)} (gone)` }]
            }
            value={subjectOf(fact)}
            choose={(subject) => put(when.with(i, factAbout(device, subject)))}
          />
          <FactIs device={device} of={of} fact={fact} save={(next) => put(when.with(i, next))} />
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`${of}: drop this condition`}
            onClick={() => put(when.filter((_, k) => k !== i))}
          >
            ✕
          </Button>
        </div>
      ))}
      {offered.length > when.length && (
        <Button size="compact-xs" variant="default" aria-label={`${of}: add a condition`} onClick={add}>
          {when.length === 0 ? 'Only while …' : 'And while …'}
        </Button>
      )}
    </div>
  );
};

const FactIs = ({ device, of, fact, save }: { device: Device; of: string; fact: Fact; save: (fact: Fact) => void }) => {
  if ('jack' in fact)
    return (
      <Choice
        aria-label={`${of}: the jack`}
        data={PLUGGED}
        value={fact.plugged ? 'plugged' : 'unplugged'}
        choose={(is) => save({ ...fact, plugged: is === 'plugged' })}
      />
    );
  if ('in' in fact) {
    const domain = device.controls.find((c) => c.id === fact.control)?.domain;
    const values = domain && 'values' in domain ? domain.values : fact.in;
    if (fact.in.length < 2)
      return (
        <Choice
          aria-label={`${of}: the control is`}
          data={[...values.map(String), ...(values.length > 2 ? [SEVERAL] : [])]}
          value={String(fact.in[0] ?? '')}
          choose={(text) =>
            save({ ...fact, in: text === SEVERAL ? values.slice(0, 2) : values.filter((v) => String(v) === text) })
          }
        />
      );
    return (
      <MultiSelect
        size="xs"
        aria-label={`${of}: the control is`}
        data={values.map(String)}
        value={fact.in.map(String)}
        onChange={(chosen) =>
          chosen.length > 0 && save({ ...fact, in: values.filter((v) => chosen.includes(String(v))) })
        }
      />
    );
  }
  return (
    <span className="condition">
      {(['from', 'to'] as const).map((end) => (
        <Numbered
          key={end}
          decimal
          label={`${of}: ${end}`}
          min={-LARGEST_NUMBER}
          max={LARGEST_NUMBER}
          value={fact[end]}
          save={(v) => save({ ...fact, [end]: v })}
        />
      ))}
    </span>
  );
};
