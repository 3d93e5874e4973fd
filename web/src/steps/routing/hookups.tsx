import { Button, Select } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { addHookup, changeHookup, compareHookups, copyHookup, removeHookup } from '@yunta/core/edits/hookups';
import type { Cable, Hookup } from '@yunta/core/rig/hookup';
import { type Id } from '@yunta/core/rig/ids';
import { all, cablesOf, partOf } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Headline } from '../../shared/verdict.js';
import { newPartId } from '../../session/ids.js';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { boxName, jackText } from './jack-text.js';
import { HookupTerms } from './terms.js';
import { fits, TextField } from '../../shared/text-field.js';
import { type HookupStanding } from '../../worker/answers.js';
import { theFirst, theOne } from '@yunta/core/known/the';

/** Every way of wiring this rig: how each stands, copies to change, and what to pull and plug from one to another. */
export const Hookups = () => {
  const { rig, hookup } = useRig();
  const hookups = all(rig, 'hookup');
  const standings = useAsked(['standings'], (worker) => worker.answers.standings());
  return (
    <>
      <div className="card" style={{ padding: '8px 8px 14px' }}>
        <table className="plain folds">
          <thead>
            <tr>
              <th>hook-up</th>
              <th>cables</th>
              <th>sounds that come back</th>
              <th>findings</th>
              <th>
                <span className="visually-hidden">what to do with it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {hookups.map((h) => (
              <HookupRow key={h.id} hookup={h} standing={standings?.find((s) => s.hookup === h.id)} />
            ))}
          </tbody>
        </table>
        <NewHookup />
      </div>
      {hookup && <HookupTerms key={hookup.id} hookup={hookup} />}
      {hookups.length > 1 && <Compare />}
    </>
  );
};

interface HookupRowProps {
  readonly hookup: Hookup;
  readonly standing: HookupStanding | undefined;
}

const HookupRow = ({ hookup: h, standing }: HookupRowProps) => {
  const { rig, hookup, edit, chooseHookup } = useRig();
  const isShown = h.id === hookup?.id;
  const copy = () => {
    const id = newPartId('hookup');
    const copied = copyHookup(rig, h.id, id, `${h.name}, copy`, () => newPartId('cable'));
    if (edit(copied, `Copy ${h.name}`).length === 0) chooseHookup(id);
  };
  return (
    <tr aria-current={isShown ? 'true' : undefined}>
      <td>
        <Name hookup={h} shown={isShown} />
      </td>
      <td data-head="cables" className="mono">
        {cablesOf(rig, h.id).length}
      </td>
      <td data-head="sounds">{standing ? <Headline tally={standing.tally} limbs={standing.limbs} /> : '…'}</td>
      <td data-head="findings">{standing ? standing.pressing : '…'}</td>
      <td className="hookup-does">
        <Button
          variant="default"
          size="compact-xs"
          disabled={isShown}
          onClick={() => chooseHookup(h.id)}
          aria-label={`Show ${h.name}`}
        >
          Show
        </Button>{' '}
        <Button variant="default" size="compact-xs" onClick={copy} aria-label={`Copy ${h.name}`}>
          Copy
        </Button>{' '}
        <Button
          variant="default"
          size="compact-xs"
          disabled={all(rig, 'hookup').length === 1}
          onClick={() => edit(removeHookup(rig, h.id), `Remove hook-up ${h.name}`)}
          aria-label={`Remove ${h.name}`}
        >
          Remove
        </Button>
      </td>
    </tr>
  );
};

const NewHookup = () => {
  const { edit, chooseHookup } = useRig();
  const [name, setName] = useState('');
  const add = () => {
    const id = newPartId('hookup');
    if (name.trim() && edit(addHookup(id, name.trim()), `New hook-up: ${name.trim()}`).length === 0) {
      chooseHookup(id);
      setName('');
    }
  };
  return (
    <form
      className="new-hookup"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <TextField
        most={LONGEST.name}
        aria-label="Name of a new hook-up"
        placeholder="a new, empty one: fly date, rehearsal …"
        w={280}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button type="submit" variant="default" disabled={!fits(name, LONGEST.name)}>
        Add
      </Button>
    </form>
  );
};

const Name = ({ hookup, shown }: { hookup: Hookup; shown: boolean }) => {
  const { edit } = useRig();
  const [text, setText] = useState<string>();
  const keep = () => {
    if (text?.trim() && !fits(text, LONGEST.name)) return;
    if (text?.trim() && text.trim() !== hookup.name)
      edit(changeHookup(hookup, { name: text.trim() }), `Rename hook-up to ${text.trim()}`);
    setText(undefined);
  };
  return (
    <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
      <TextField
        most={LONGEST.name}
        size="xs"
        w={200}
        aria-label={`Name of ${hookup.name}`}
        value={text ?? hookup.name}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={keep}
        onKeyDown={(e) => {
          if (e.key === 'Enter') keep();
          else if (e.key === 'Escape') setText(undefined);
        }}
      />
      {shown && <span className="soft">shown</span>}
    </div>
  );
};

/** In the order of a person on their knees: first all that is pulled, box by box, then all that is plugged. */
const Compare = () => {
  const { rig, hookup } = useRig();
  const hookups = all(rig, 'hookup');
  const others = hookups.map((h) => ({ value: h.id, label: h.name }));
  const [from, setFrom] = useState<Id<'hookup'>>();
  const [to, setTo] = useState<Id<'hookup'>>();
  const start = (from && partOf(rig, from)) ?? hookup ?? theFirst(hookups);
  const goal = (to && partOf(rig, to)) ?? theOne(hookups, (h) => h.id !== start.id);
  const { pull, plug, stays } = compareHookups(rig, start.id, goal.id);
  const isPrinting = usePrinting();
  return (
    <div className="card">
      {isPrinting && (
        <Paper title={`Rewire from ${start.name} to ${goal.name}`}>
          <p>{staysText(stays)}</p>
          <LeadTicks title={`Pull these ${pull.length}`} cables={pull} />
          <LeadTicks title={`Plug these ${plug.length}`} cables={plug} />
        </Paper>
      )}
      <div style={{ display: 'flex', gap: 10, alignItems: 'center', flexWrap: 'wrap', marginBottom: 8 }}>
        <strong>Rewire from</strong>
        <Select
          aria-label="From which hook-up"
          size="xs"
          w={170}
          allowDeselect={false}
          data={others}
          value={start.id}
          onChange={(v) => v && setFrom(v)}
        />
        <strong>to</strong>
        <Select
          aria-label="To which hook-up"
          size="xs"
          w={170}
          allowDeselect={false}
          data={others}
          value={goal.id}
          onChange={(v) => v && setTo(v)}
        />
        <span className="soft">{pull.length + plug.length === 0 ? 'They are wired alike.' : staysText(stays)}</span>
        {pull.length + plug.length > 0 && <PrintButton what="what to pull and to plug" />}
      </div>
      <div className="rewire">
        <Leads title={`Pull these ${pull.length}`} cables={pull} />
        <Leads title={`Plug these ${plug.length}`} cables={plug} />
      </div>
    </div>
  );
};

const staysText = (stays: number): string =>
  stays === 1 ? '1 cable stays as it is.' : `${stays} cables stay as they are.`;

/** On paper, to be ticked off on one's knees. */
const LeadTicks = ({ title, cables }: { title: string; cables: readonly Cable[] }) => {
  const { rig } = useRig();
  if (cables.length === 0) return null;
  return (
    <section>
      <h2>{title}</h2>
      <ul className="paper-ticks">
        {cables.map(({ id, ends: [a, b], m, label }) => (
          <li key={id}>
            ☐ <strong>{jackText(rig, a)}</strong> → <strong>{jackText(rig, b)}</strong> {boxName(rig, a)} to{' '}
            {boxName(rig, b)}
            {m ? `, ${m} m` : ''}
            {label ? `, tag ${label}` : ''}
          </li>
        ))}
      </ul>
    </section>
  );
};

const Leads = ({ title, cables }: { title: string; cables: readonly Cable[] }) => {
  const { rig } = useRig();
  if (cables.length === 0) return null;
  return (
    <section>
      <h2>{title}</h2>
      <ol className="plan">
        {cables.map(({ id, ends: [a, b], m }) => (
          <li key={id} title={`${boxName(rig, a)} to ${boxName(rig, b)}`}>
            <span className="cable-line">
              {jackText(rig, a)} → {jackText(rig, b)}
            </span>{' '}
            {m && <span className="soft">{m} m</span>}
          </li>
        ))}
      </ol>
    </section>
  );
};
