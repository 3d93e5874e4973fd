import { Button, Checkbox } from '@mantine/core';
import type { CaseView, ThingView } from '@yunta/core/board/packed';
import { tickThing } from '@yunta/core/edits/packing';
import { partOf } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { personHere } from '../../../session/person.js';
import { useRig } from '../../../shared/rig-context.js';
import { CaseFacts } from './case-facts.js';
import type { Way } from './packing.js';
import { ThingFacts } from './thing-facts.js';

interface CaseCardProps {
  readonly one: CaseView;
  readonly others: readonly CaseView[];
  readonly day: string;
  readonly way: Way;
}

/** @example kilos(0.06) // '60 g' */
export const kilos = (kg: number): string =>
  kg > 0 && kg < 1 ? `${Math.round(kg * 1000)} g` : `${Math.round(kg * 10) / 10} kg`;

/** One case: what it weighs, what is to be heeded, and its things to be ticked. */
export const CaseCard = ({ one, others, day, way }: CaseCardProps) => {
  const { case: box, things, kg, unknown, over, tooLarge, cautions } = one;
  return (
    <section className="card" aria-label={box.name}>
      <div className="packing-name">
        {box.colour && <span className="packing-colour">{box.colour}</span>}
        <h2>{box.name}</h2>
        <span className={over > 0 ? 'broken' : 'soft'}>
          {unknown.length ? 'at least ' : ''}
          {kilos(kg)}
          {box.mostKg === undefined ? '' : ` of ${kilos(box.mostKg)}`}
          {over > 0 ? `: ${kilos(over)} too much` : ''}
        </span>
      </div>
      {tooLarge.map((words) => (
        <p key={words} className="broken">
          {words}
        </p>
      ))}
      {cautions.map((words) => (
        <p key={words} className="packing-caution">
          {words}
        </p>
      ))}
      {things.length === 0 && <p className="soft">Nothing belongs in it yet.</p>}
      <ul className="day-lines">
        {things.map((thing) => (
          <Thing key={thing.name} thing={thing} one={one} others={others} day={day} way={way} />
        ))}
      </ul>
      <CaseFacts one={box} />
    </section>
  );
};

const Thing = ({ thing, one, others, day, way }: CaseCardProps & { thing: ThingView }) => {
  const { rig, edit } = useRig();
  const [isOpen, open] = useState(false);
  const { name, thing: is } = thing;
  const how = thing[way];
  const tick = (isTicked: boolean): void => {
    const by = isTicked ? { by: personHere(), when: new Date().toISOString() } : undefined;
    edit(tickThing(rig, day, way, name, by), `${name}: ${isTicked ? (way === 'out' ? 'in' : 'back') : 'open again'}`);
  };
  return (
    <li>
      <div className="packing-thing">
        <Checkbox
          size="md"
          checked={how !== undefined}
          label={`${name}${(is.many ?? 1) > 1 ? ` × ${is.many}` : ''}`}
          description={[...aboutThing(thing), how ? `${way === 'out' ? 'In' : 'Back'}, by ${how.by || 'somebody'}` : '']
            .filter(Boolean)
            .join('. ')}
          onChange={(e) => tick(e.currentTarget.checked)}
        />
        <Button
          size="compact-xs"
          variant="default"
          aria-expanded={isOpen}
          aria-label={`More about ${name}`}
          onClick={() => open(!isOpen)}
        >
          More
        </Button>
      </div>
      {isOpen && (
        <ThingFacts
          name={name}
          one={one.case}
          others={others.map((o) => o.case)}
          box={is.device && partOf(rig, is.device)}
        />
      )}
    </li>
  );
};

/** What is known of a thing, in words. */
export const aboutThing = ({ thing: { whose, is, in: part }, kg }: ThingView): readonly string[] => [
  ...(part ? [part] : []),
  ...(is ? [is] : []),
  ...(whose ? [`${whose}’s`] : []),
  ...(kg === undefined ? ['weight not known'] : [kilos(kg)]),
];
