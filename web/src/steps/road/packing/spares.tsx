import { Button } from '@mantine/core';
import type { SpareNeed } from '@yunta/core/derive/views/spares';
import { pack } from '@yunta/core/edits/packing';
import { cutTo, LONGEST } from '@yunta/core/rig/limits';
import type { PackCase } from '@yunta/core/rig/packing';
import { Link } from 'react-router';
import { useAsked, useRig } from '../../../shared/rig-context.js';

/** So many are shown at first. */
const SHOWN = 5;

/** Whose spare is most likely to save most sounds, and which backups no longer hold what their box holds. */
export const Spares = ({ into }: { into: PackCase }) => {
  const needs = useAsked(['spares'], (worker) => worker.answers.spares());
  if (!needs || needs.length === 0) return null;
  const stale = needs.flatMap((n) => n.stale.map((s) => ({ ...s, box: n.name })));
  return (
    <section className="card" aria-label="Spares">
      <h2>Spares, what is needed most first</h2>
      <p className="soft">
        By how many sounds suffer when it dies and how often it failed. What failed is written in the{' '}
        <Link to="../road?show=log">logbook</Link>.
      </p>
      {stale.map((s) => (
        <p key={s.name} className="broken" role="alert">
          {s.asOf === undefined
            ? `Of which day is “${s.name}”? Nobody said when it held what ${s.box} holds.`
            : `“${s.name}” is of ${s.asOf}. ${s.since} ${s.since === 1 ? 'program was' : 'programs were'} typed into ${s.box} since.`}
        </p>
      ))}
      <ol className="packing-spares">
        {needs.slice(0, SHOWN).map((need) => (
          <Need key={need.device} need={need} into={into} />
        ))}
      </ol>
      {needs.length > SHOWN && (
        <details>
          <summary>{needs.length - SHOWN} more</summary>
          <ol className="packing-spares" start={SHOWN + 1}>
            {needs.slice(SHOWN).map((need) => (
              <Need key={need.device} need={need} into={into} />
            ))}
          </ol>
        </details>
      )}
    </section>
  );
};

const Need = ({ need: { device, name, sounds, of, troubles, packed }, into }: { need: SpareNeed; into: PackCase }) => {
  const { edit } = useRig();
  const spare = cutTo(`Spare: ${name}`, LONGEST.name);
  return (
    <li>
      <strong>{name}</strong>{' '}
      <span className="soft">
        {sounds === of ? 'every sound suffers' : `${sounds} of ${of} sounds suffer`}
        {troubles.map(
          (t) => `; ${t.part} failed ${t.times === 1 ? 'once' : `${t.times} times`}, last ${t.last.slice(0, 10)}`,
        )}
      </span>{' '}
      {packed.length > 0 ? (
        <span className="proved">in {packed.join(', ')}</span>
      ) : (
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`Pack a spare ${name}`}
          onClick={() => edit(pack(into, spare, { device, is: 'spare' }), `${spare} into ${into.name}`)}
        >
          Pack a spare
        </Button>
      )}
    </li>
  );
};
