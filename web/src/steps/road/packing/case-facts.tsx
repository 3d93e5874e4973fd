import { Button } from '@mantine/core';
import { changeCase, removeCase } from '@yunta/core/edits/packing';
import { LONGEST } from '@yunta/core/rig/limits';
import { STAGE_SIDES, TRAVELS, type PackCase } from '@yunta/core/rig/packing';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { Numbered } from '../../../shared/numbered.js';
import { useRig } from '../../../shared/rig-context.js';
import { Weight } from './thing-facts.js';

const UNSAID = 'not said';
const UNKNOWN = 'known at rehearsal';
const LONGEST_MM = 5000;
const INSIDE = ['Inside: width, mm', 'Inside: depth, mm', 'Inside: height, mm'] as const;
/** What a checked bag often may weigh (common practice; ask your carrier), in kg. */
const CHECKED_BAG_KG = 23;

/** What is known of a case: weights, how it travels, whose it is, where it goes on stage. */
export const CaseFacts = ({ one }: { one: PackCase }) => {
  const { edit } = useRig();
  const say = (change: Parameters<typeof changeCase>[1], what: string): void =>
    void edit(changeCase(one, change), `${one.name}: ${what}`);
  const inside = one.mm ?? [0, 0, 0];
  const side = (i: number, to: number): void => {
    const [w, d, h] = inside.with(i, to);
    say({ mm: [w || 1, d || 1, h || 1] }, 'inside');
  };
  return (
    <details>
      <summary>About this case</summary>
      <div className="fields packing-facts">
        <KeptField size="xs" label="Name" most={LONGEST.name} value={one.name} save={(name) => say({ name }, 'name')} />
        <Weight label={`${one.name}, empty, kg`} kg={one.kg} save={(kg) => say({ kg }, 'empty')} />
        <Weight
          label={`${one.name}, at most, kg`}
          kg={one.mostKg}
          save={(mostKg) => say({ mostKg: mostKg || undefined }, 'at most')}
        />
        <Choice
          label="It travels"
          data={[UNSAID, ...TRAVELS]}
          value={one.travels ?? UNSAID}
          choose={(t) =>
            say(
              {
                travels: t === UNSAID ? undefined : t,
                ...(t === 'hold' && one.mostKg === undefined ? { mostKg: CHECKED_BAG_KG } : {}),
              },
              'how it travels',
            )
          }
        />
        <Choice
          label="On stage"
          data={[UNKNOWN, ...STAGE_SIDES]}
          value={one.side ?? UNKNOWN}
          choose={(s) => say({ side: s === UNKNOWN ? undefined : s }, 'side of the stage')}
        />
        <KeptField
          size="xs"
          label="Owner"
          most={LONGEST.name}
          mayBeEmpty
          value={one.owner ?? ''}
          save={(owner) => say({ owner: owner || undefined }, 'owner')}
        />
        <KeptField
          size="xs"
          label="Its one colour"
          most={LONGEST.label}
          mayBeEmpty
          value={one.colour ?? ''}
          save={(colour) => say({ colour: colour || undefined }, 'colour')}
        />
        {INSIDE.map((label, i) => (
          <Numbered
            key={label}
            shown
            label={label}
            min={1}
            max={LONGEST_MM}
            value={inside[i] || undefined}
            save={(v) => side(i, v)}
          />
        ))}
      </div>
      <Button size="compact-xs" variant="default" onClick={() => edit(removeCase(one.id), `Take ${one.name} away`)}>
        Take the case away
      </Button>
    </details>
  );
};
