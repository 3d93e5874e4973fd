import { Button, Popover, Select } from '@mantine/core';
import {
  callersIn,
  callFrom,
  placesOf,
  slotFrom,
  toRetype,
  type Caller,
  type CallPlace,
} from '@yunta/core/edits/calls';
import type { Sound } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { Link } from 'react-router';
import { useRig } from '../../shared/rig-context.js';

const NOBODY = '';

const BY_WORDS: Readonly<Record<Caller['by'], string>> = {
  slot: 'slot',
  song: 'song of its list',
  cue: 'cue of the timeline',
};

/** Who calls a sound, by what, and from which place; chosen anew at the same spot. */
export const CalledBy = ({ sound }: { sound: Sound }) => {
  const { rig } = useRig();
  const callers = callersIn(rig);
  const said = callers.flatMap((caller) => {
    const slot = slotFrom(rig, sound, caller);
    return slot === undefined ? [] : [`${caller.code} ${placesOf(rig, caller)[slot]?.text ?? ''}`];
  });
  return (
    <Popover position="bottom-start" shadow="md" width={340} trapFocus>
      <Popover.Target>
        <Button variant="default" size="compact-sm">
          {said.length ? `called by ${said.join(', ')}` : 'called by nothing'} <span aria-hidden>&ensp;▾</span>
        </Button>
      </Popover.Target>
      <Popover.Dropdown className="called-by">
        <p tabIndex={-1} data-autofocus>
          <strong>What calls {sound.name}</strong>
        </p>
        {callers.length === 0 && (
          <p>
            Nothing here can call a sound: every box is set by foot and hand. Add a loop switcher or a foot controller
            in <Link to="../kit">Kit</Link>, and the sounds are offered its slots.
          </p>
        )}
        {callers.map((caller) => (
          <From key={`${caller.device} ${caller.memory}`} sound={sound} caller={caller} />
        ))}
      </Popover.Dropdown>
    </Popover>
  );
};

const optionText = ({ text, sound: there }: CallPlace, sound: Sound): string => {
  if (!there) return `${text}, free`;
  return there.id === sound.id ? `${text}, it stands here` : `${text}, ${there.name}`;
};

/** One controller: from which of its places it calls the sound. What was typed in there is said before it moves. */
const From = ({ sound, caller }: { sound: Sound; caller: Caller }) => {
  const { rig, edit } = useRig();
  const [asked, ask] = useState<number>();
  /** What is typed finds a place; it begins empty, not behind the place that stands there. */
  const [search, seek] = useState('');
  const places = placesOf(rig, caller);
  const now = slotFrom(rig, sound, caller);
  const name = rig.parts.device.get(caller.device)?.name ?? caller.code;
  const move = (slot: number | undefined) => {
    ask(undefined);
    const where = slot === undefined ? 'nothing' : `${caller.code} ${places[slot]?.text}`;
    edit(callFrom(rig, sound, caller, slot), `${sound.name} is called by ${where}`);
  };
  const choose = (value: string | null) => {
    const slot = value ? Number(value) : undefined;
    if (slot === now) return;
    if (toRetype(rig, sound, caller, slot).length) ask(slot ?? -1);
    else move(slot);
  };
  const wanted = asked === undefined || asked < 0 ? undefined : asked;
  const retype = asked === undefined ? [] : toRetype(rig, sound, caller, wanted);
  const other = wanted === undefined ? undefined : places[wanted]?.sound;
  return (
    <div className="called-from">
      <Select
        label={`${name}, ${caller.isScene ? 'scene in a preset' : BY_WORDS[caller.by]}`}
        description={
          now === undefined
            ? 'A sound that stands there is called by nothing then.'
            : 'A sound that stands there changes places with it.'
        }
        searchable
        searchValue={search}
        onSearchChange={seek}
        onDropdownOpen={() => seek('')}
        allowDeselect={false}
        limit={200}
        comboboxProps={{ withinPortal: false }}
        data={[
          { value: NOBODY, label: 'none of them' },
          ...places.map((p) => ({ value: String(p.slot), label: optionText(p, sound) })),
        ]}
        value={now === undefined ? NOBODY : String(now)}
        onChange={choose}
        nothingFoundMessage="No such place"
      />
      {retype.length > 0 && (
        <div role="alert">
          <p>
            {retype.join(' and ')} {retype.length === 1 ? 'was' : 'were'} typed into {name} already and must be typed
            again{other && now !== undefined ? `; ${other.name} changes places with it` : ''}.
          </p>
          <Button size="compact-sm" onClick={() => move(wanted)}>
            Move it
          </Button>{' '}
          <Button size="compact-sm" variant="default" onClick={() => ask(undefined)}>
            Leave it
          </Button>
        </div>
      )}
    </div>
  );
};
