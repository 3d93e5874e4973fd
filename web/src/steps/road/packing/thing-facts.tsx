import { Button } from '@mantine/core';
import { holdsContents } from '@yunta/core/board/stale';
import { readDay } from '@yunta/core/edits/open-points';
import { pack, repack } from '@yunta/core/edits/packing';
import { withMaybe } from '@yunta/core/known/maybe';
import type { Device } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { PACKED_AS, type PackCase, type Packed } from '@yunta/core/rig/packing';
import { ok, refuse } from '@yunta/core/rig/result';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { Numbered } from '../../../shared/numbered.js';
import { useRig } from '../../../shared/rig-context.js';
import { today } from '../../../shared/today.js';
import { TypedLine } from '../../../shared/typed-line.js';
import { TypedText } from '../../../shared/typed-text.js';

const HEAVIEST_KG = 500;
const USED = 'to be used';
const AS = [USED, ...PACKED_AS] as const;

/** A weight as it is typed: refused beside its field when it is none. */
export const Weight = ({
  label,
  kg,
  save,
}: {
  label: string;
  kg: number | undefined;
  save: (kg: number | undefined) => void;
}) => (
  <div>
    <span className="field-label">{label}</span>
    <TypedText
      label={label}
      most={LONGEST.label}
      text={kg === undefined ? '' : String(kg)}
      read={(typed) => {
        const text = typed
          .trim()
          .replace(',', '.')
          .replace(/\s*kg$/i, '');
        const value = text === '' ? undefined : Number(text);
        if (value !== undefined && !(value >= 0 && value <= HEAVIEST_KG))
          return refuse([
            {
              code: 'weight',
              where: label,
              wrong: `"${typed.trim().slice(0, 20)}" is no weight.`,
              would: `Write kg from 0 to ${HEAVIEST_KG}.`,
            },
          ]);
        save(value);
        return ok(value);
      }}
    />
  </div>
);

/** The day on which a backup or another unit was made equal to its box. */
const AsOf = ({
  name,
  day,
  save,
}: {
  name: string;
  day: string | undefined;
  save: (day: string | undefined) => void;
}) => (
  <div>
    <span className="field-label">Holds what the box held on</span>
    <TypedText
      label={`${name}, holds what the box held on`}
      most={LONGEST.label}
      placeholder={today()}
      text={day ?? ''}
      read={(typed) => {
        const read = typed.trim() === '' ? ok(undefined) : readDay(typed);
        if (read.ok) save(read.value);
        return read;
      }}
    />
  </div>
);

/** Which file is in which slot, a line each. */
const Files = ({
  name,
  files,
  save,
}: {
  name: string;
  files: Readonly<Record<string, string>>;
  save: (files: Readonly<Record<string, string>> | undefined) => void;
}) => {
  const add = (line: string): readonly string[] => {
    const [slot = '', ...rest] = line.split(/[:=]/);
    const file = rest.join(':').trim();
    if (!slot.trim() || !file) return ['Write the slot, a colon and the file: “12: small room, bright”.'];
    if (slot.trim().length > LONGEST.word || file.length > LONGEST.name)
      return [`A slot has at most ${LONGEST.word} characters, a file ${LONGEST.name}.`];
    save({ ...files, [slot.trim()]: file });
    return [];
  };
  const without = (slot: string): void => {
    const { [slot]: _, ...rest } = files;
    save(Object.keys(rest).length ? rest : undefined);
  };
  return (
    <div className="packing-files">
      <ul>
        {Object.entries(files).map(([slot, file]) => (
          <li key={slot}>
            <span className="mono">{slot}</span> {file}{' '}
            <Button size="compact-xs" variant="default" aria-label={`Take ${slot} away`} onClick={() => without(slot)}>
              Take away
            </Button>
          </li>
        ))}
      </ul>
      <TypedLine
        label={`${name}: which file is in which slot`}
        description=""
        placeholder="12: small room, bright"
        button="Add"
        most={LONGEST.word + LONGEST.name}
        add={add}
      />
    </div>
  );
};

interface ThingFactsProps {
  readonly name: string;
  readonly one: PackCase;
  readonly others: readonly PackCase[];
  readonly box: Device | undefined;
}

/** How many, how heavy, whose, what for, and in which case. */
export const ThingFacts = ({ name, one, others, box }: ThingFactsProps) => {
  const { rig, edit } = useRig();
  const thing = one.holds[name];
  if (!thing) return null;
  const say = <K extends keyof Packed>(key: K, value: Packed[K] | undefined): void =>
    void edit(pack(one, name, withMaybe(thing, key, value)), `${name}: ${key === 'in' ? 'compartment' : key}`);
  return (
    <div className="fields packing-facts">
      <Numbered
        shown
        label="How many"
        min={1}
        max={9999}
        value={thing.many ?? 1}
        save={(n) => say('many', n > 1 ? n : undefined)}
      />
      {box?.figures.kg === undefined && thing.board === undefined && (
        <Weight label={`${name}, kg of one`} kg={thing.kg} save={(kg) => say('kg', kg)} />
      )}
      <Choice
        label="What for"
        data={AS}
        value={thing.is ?? USED}
        choose={(is) => say('is', is === USED ? undefined : is)}
      />
      <KeptField
        size="xs"
        label="Compartment"
        most={LONGEST.word}
        mayBeEmpty
        value={thing.in ?? ''}
        save={(to) => say('in', to || undefined)}
      />
      <KeptField
        size="xs"
        label="Whose, if not yours"
        most={LONGEST.name}
        mayBeEmpty
        value={thing.whose ?? ''}
        save={(to) => say('whose', to || undefined)}
      />
      {holdsContents(rig, thing) && (
        <>
          <AsOf name={name} day={thing.asOf} save={(day) => say('asOf', day)} />
          <Files name={name} files={thing.files ?? {}} save={(files) => say('files', files)} />
        </>
      )}
      {others.length > 1 && (
        <Choice
          label="In which case"
          data={others.map((o) => ({ value: o.id, label: o.name }))}
          value={one.id}
          choose={(id) => {
            const to = others.find((o) => o.id === id);
            if (to) edit(repack(one, to, name), `${name} into ${to.name}`);
          }}
        />
      )}
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => edit(pack(one, name, undefined), `${name} is not packed any more`)}
      >
        Take it off the list
      </Button>
    </div>
  );
};
