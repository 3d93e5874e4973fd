import { Button } from '@mantine/core';
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

interface ThingFactsProps {
  readonly name: string;
  readonly one: PackCase;
  readonly others: readonly PackCase[];
  readonly box: Device | undefined;
}

/** How many, how heavy, whose, what for, and in which case. */
export const ThingFacts = ({ name, one, others, box }: ThingFactsProps) => {
  const { edit } = useRig();
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
