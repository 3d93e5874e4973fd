import './gig.css';
import { Button, Checkbox, Select } from '@mantine/core';
import { gigLines, gigSums, type GigBox, type GigSums } from '@yunta/core/derive/views/gig';
import { addEngagement } from '@yunta/core/edits/engagements';
import { theId } from '@yunta/core/rig/ids';
import type { Id } from '@yunta/core/rig/ids';
import { all } from '@yunta/core/rig/rig';
import type { Engagement, GigLimits } from '@yunta/core/rig/show';
import { useState } from 'react';
import { Link } from 'react-router';
import { newPartId } from '../../../session/ids.js';
import { NewByName } from '../../../shared/new-by-name.js';
import { useAsked, useRig } from '../../../shared/rig-context.js';
import { Limits } from './limits.js';

const NO_LIMITS: GigLimits = {};
const NONE: readonly GigBox[] = [];

/** What a kind of gig asks, the kit against it, and what each box is good for. */
export const Gig = () => {
  const { rig, hookup, edit } = useRig();
  const acts = all(rig, 'engagement');
  const [chosen, choose] = useState<string>();
  const [without, leave] = useState<ReadonlySet<Id<'device'>>>(new Set());
  const boxes = useAsked(['gig boxes', hookup?.id], (worker) => worker.answers.gigBoxes()) ?? NONE;
  const act = acts.find((a) => a.id === chosen) ?? acts.find((a) => a.hookup === hookup?.id) ?? acts[0];
  const along = boxes.filter((b) => !without.has(b.device));
  const add = (name: string): boolean => {
    const id = newPartId('engagement');
    const isMade = edit(addEngagement(id, name), `${name}: a kind of gig`).length === 0;
    if (isMade) choose(id);
    return isMade;
  };
  return (
    <>
      <div className="headline">
        <h1>The gig</h1>
        <span className="soft">{hookup?.name}</span>
        <div className="tools">
          <Button size="xs" variant="default" component={Link} to="../kit">
            Back to the kit
          </Button>
        </div>
      </div>
      <div className="gig-both">
        <div className="gig-side">
          <section className="card" aria-label="Which gigs">
            <h2>Which gigs</h2>
            {acts.length > 1 && (
              <Select
                size="xs"
                label="Kind of gig"
                allowDeselect={false}
                data={acts.map((a) => ({ value: a.id, label: a.name }))}
                value={act?.id ?? null}
                onChange={(id) => id && choose(theId('engagement', id))}
              />
            )}
            {act && acts.length === 1 && <p>{act.name}</p>}
            <NewByName label="Name of a kind of gig" placeholder="Fly dates" button="Add" add={add} />
            {act && <Limits key={act.id} act={act} />}
          </section>
        </div>
        <div className="gig-side">
          {act && hookup && <Judged act={act} along={along} />}
          <Boxes boxes={boxes} along={along} without={without} leave={leave} />
        </div>
      </div>
    </>
  );
};

/** Each thing that is asked, kept or not. */
const Judged = ({ act, along }: { act: Engagement; along: readonly GigBox[] }) => {
  const { rig, hookup } = useRig();
  if (!hookup) return null;
  const lines = gigLines({ rig, hookup }, act.limits ?? NO_LIMITS, along);
  return (
    <section className="card" aria-label={`The kit against ${act.name}`}>
      <h2>The kit against it</h2>
      {lines.length === 0 && <p className="soft">Nothing is asked yet. Say above what these gigs allow.</p>}
      <ul className="gig-lines" role="status">
        {lines.map(({ asks, is, holds }) => (
          <li key={asks} className={holds ? '' : 'gig-broken'}>
            <strong>{holds ? '✓' : '✗'}</strong> {asks}
            <span className="soft">{is}</span>
          </li>
        ))}
      </ul>
    </section>
  );
};

const money = ({ price, unpriced }: GigSums): string =>
  `${unpriced ? 'at least ' : ''}${price.toLocaleString('en')} in money`;
const kilos = ({ kg, unweighed }: GigSums): string => `${unweighed ? 'at least ' : ''}${kg.toFixed(1)} kg`;
const cm2 = (mm2: number): string => `${Math.round(mm2 / 100)} cm²`;

interface BoxesProps {
  readonly boxes: readonly GigBox[];
  readonly along: readonly GigBox[];
  readonly without: ReadonlySet<Id<'device'>>;
  readonly leave: (without: ReadonlySet<Id<'device'>>) => void;
}

/** What each box takes and is used for; one that is ticked off is tried as left at home. */
const Boxes = ({ boxes, along, without, leave }: BoxesProps) => {
  const [all, now] = [gigSums(boxes), gigSums(along)];
  const turn = (id: Id<'device'>, comes: boolean): void => {
    const next = new Set(without);
    if (comes) next.delete(id);
    else next.add(id);
    leave(next);
  };
  if (boxes.length === 0)
    return <p className="soft">No box is plugged in this hook-up yet. What comes along is what is plugged.</p>;
  return (
    <section className="card" aria-label="What comes along">
      <h2>What comes along</h2>
      <p className="gig-sums" role="status">
        <span>
          <strong>{kilos(now)}</strong>
          {without.size > 0 && <span className="soft"> with all {kilos(all)}</span>}
        </span>
        <span>
          <strong>{now.outputs} outputs</strong>
          {without.size > 0 && <span className="soft"> with all {all.outputs}</span>}
        </span>
        <span>
          <strong>{cm2(now.covers)} of board</strong>
          {without.size > 0 && <span className="soft"> with all {cm2(all.covers)}</span>}
        </span>
        {all.unpriced < boxes.length && (
          <span>
            <strong>{money(now)}</strong>
            {without.size > 0 && <span className="soft"> with all {money(all)}</span>}
          </span>
        )}
      </p>
      <table className="plain tight folds">
        <caption className="visually-hidden">Boxes of this hook-up</caption>
        <thead>
          <tr>
            <th>comes along</th>
            <th>used in</th>
            <th>kg</th>
            <th>outputs</th>
            <th>board</th>
            <th>cost</th>
          </tr>
        </thead>
        <tbody>
          {boxes.map((box) => (
            <tr key={box.device} className={without.has(box.device) ? 'gig-left' : ''}>
              <td data-head="comes along">
                <Checkbox
                  size="sm"
                  label={box.name}
                  checked={!without.has(box.device)}
                  onChange={(e) => turn(box.device, e.currentTarget.checked)}
                />
              </td>
              <td data-head="used in">{usedText(box)}</td>
              <td data-head="kg">{box.kg ?? <span className="soft">not said</span>}</td>
              <td data-head="outputs">{box.outputs || ''}</td>
              <td data-head="board">{box.covers ? cm2(box.covers) : ''}</td>
              <td data-head="cost">{box.price?.toLocaleString('en') ?? ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
};

const usedText = ({ use }: GigBox): string => {
  if (!use) return '';
  if (use.sounds === 0) return 'no sound: may stay at home';
  const songs = use.songs === 1 ? ', in one song only' : use.songs > 1 ? `, ${use.songs} songs` : '';
  return `${use.sounds} of ${use.of} sounds${songs}`;
};
