import { Button, NumberInput, Select } from '@mantine/core';
import { callersIn, type Caller } from '@yunta/core/edits/calls';
import {
  addEngagement,
  keepBanks,
  listsOf,
  playFor,
  removeEngagement,
  renameEngagement,
  songsOfEngagement,
  wireBy,
} from '@yunta/core/edits/engagements';
import { bankSize } from '@yunta/core/edits/mirror';
import { together } from '@yunta/core/change/edit';
import { memoryIn } from '@yunta/core/rig/box';
import { theId } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { all, partOf, type Rig } from '@yunta/core/rig/rig';
import type { Engagement, SetList } from '@yunta/core/rig/show';
import { useState } from 'react';
import { newPartId } from '../../session/ids.js';
import { KeptField } from '../../shared/kept-field.js';
import { NewByName } from '../../shared/new-by-name.js';
import { useRig } from '../../shared/rig-context.js';

const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

/** What a set is played for: the act with its hook-up and its banks; a new one is made by its name. */
export const ActOfSet = ({ list }: { list: SetList }) => {
  const { rig, edit } = useRig();
  const acts = all(rig, 'engagement');
  const act = list.engagement && partOf(rig, list.engagement);
  const choose = (id: string | null): void => {
    const chosen = id ? theId('engagement', id) : undefined;
    edit(playFor(list, chosen), chosen ? `${list.name} is for ${partOf(rig, chosen)?.name}` : `${list.name}: no act`);
  };
  const add = (name: string): boolean => {
    const id = newPartId('engagement');
    return edit(together(addEngagement(id, name), playFor(list, id)), `${list.name} is for ${name}`).length === 0;
  };
  return (
    <section className="card act-card">
      <h2>Act</h2>
      <p className="soft">
        One rig may serve several acts, such as theatre, church and band: each with its sets, its hook-up and its banks.
      </p>
      <div className="sheet-tools">
        {acts.length > 0 && (
          <Select
            size="xs"
            w={220}
            label="This set is played for"
            placeholder="no act"
            clearable
            data={acts.map((a) => ({ value: a.id, label: a.name }))}
            value={act?.id ?? null}
            onChange={choose}
          />
        )}
        <NewByName label="Name of a new act" placeholder="Theatre" button="Play it for a new act" add={add} />
      </div>
      {act && <ActCard key={act.id} act={act} />}
    </section>
  );
};

/** Controllers that are stomped in banks. */
const bankedIn = (rig: Rig): readonly Caller[] =>
  callersIn(rig).filter((c) => c.by === 'slot' && !c.isScene && bankSize(rig, c) !== undefined);

const ActCard = ({ act }: { act: Engagement }) => {
  const { rig, edit } = useRig();
  const lists = listsOf(rig, act.id);
  return (
    <>
      <p>
        <strong>{act.name}</strong>: {many(lists.length, 'set', 'sets')},{' '}
        {many(songsOfEngagement(rig, act.id).length, 'song', 'songs')}.
      </p>
      <div className="sheet-tools">
        <KeptField
          size="xs"
          label="Its name"
          most={LONGEST.name}
          value={act.name}
          save={(name) => edit(renameEngagement(act, name), `Act is called ${name}`)}
        />
        <Select
          size="xs"
          w={200}
          label="Wired as"
          placeholder="any hook-up"
          clearable
          data={all(rig, 'hookup').map((h) => ({ value: h.id, label: h.name }))}
          value={act.hookup ?? null}
          onChange={(id) => edit(wireBy(act, id ? theId('hookup', id) : undefined), `${act.name}: hook-up`)}
        />
        {bankedIn(rig).map((caller) => (
          <Banks key={`${caller.device} ${caller.memory}`} act={act} caller={caller} />
        ))}
        <Button
          size="xs"
          variant="default"
          onClick={() => edit(removeEngagement(rig, act.id), `Remove the act ${act.name}`)}
        >
          Remove this act
        </Button>
      </div>
    </>
  );
};

/** Which banks of a controller are kept for the act, as the box counts them. */
const Banks = ({ act, caller }: { act: Engagement; caller: Caller }) => {
  const { rig, edit } = useRig();
  const memory = memoryIn(partOf(rig, caller.device), caller.memory);
  const first = memory?.shows.bank?.first ?? 1;
  const last = first + Math.ceil((memory?.size ?? 1) / (bankSize(rig, caller) ?? 1)) - 1;
  const kept = act.banks?.find((b) => b.device === caller.device && b.memory === caller.memory);
  const [from, setFrom] = useState<number | undefined>(kept && kept.from + first);
  const [to, setTo] = useState<number | undefined>(kept && kept.to + first);
  const keep = (a: number | undefined, b: number | undefined): void => {
    setFrom(a);
    setTo(b);
    const isWhole = a !== undefined && b !== undefined && a >= first && a <= b && b <= last;
    if (isWhole) edit(keepBanks(act, caller, { from: a - first, to: b - first }), `${act.name}: banks ${a} to ${b}`);
    else if (a === undefined && b === undefined && kept)
      edit(keepBanks(act, caller, undefined), `${act.name}: any bank`);
  };
  const field = (label: string, value: number | undefined, change: (n: number | undefined) => void) => (
    <NumberInput
      size="xs"
      w={120}
      label={label}
      placeholder="any"
      min={first}
      max={last}
      value={value ?? ''}
      onChange={(v) => change(v === '' ? undefined : Number(v))}
    />
  );
  const isTurned = from !== undefined && to !== undefined && from > to;
  return (
    <>
      {field(`${caller.code}: from bank`, from, (a) => keep(a, to))}
      {field('to bank', to, (b) => keep(from, b))}
      {isTurned && (
        <span className="broken" role="alert">
          The last bank comes before the first.
        </span>
      )}
    </>
  );
};

/** The act of this set is wired otherwise than what is looked at. */
export const OtherwiseWired = ({ list }: { list: SetList }) => {
  const { rig, hookup, chooseHookup } = useRig();
  const act = list.engagement && partOf(rig, list.engagement);
  const wired = act ? act.hookup && partOf(rig, act.hookup) : undefined;
  if (!act || !wired || wired.id === hookup?.id) return null;
  return (
    <p className="sheet-tools">
      “{act.name}” is wired as {wired.name}; what is told here is of {hookup?.name}.{' '}
      <Button size="compact-xs" variant="default" onClick={() => chooseHookup(wired.id)}>
        Show {wired.name}
      </Button>
    </p>
  );
};
