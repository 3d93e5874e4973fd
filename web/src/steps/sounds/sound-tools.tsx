import { Button, Popover, Select } from '@mantine/core';
import { changeSound, derivedName, giveSlots, removeSound, setDisplay, setLeaving } from '@yunta/core/edits/sounds';
import { variantFor, variantsToMake } from '@yunta/core/edits/variant';
import type { Device } from '@yunta/core/rig/device';
import type { Id } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { memoryIn } from '@yunta/core/rig/box';
import { partOf, soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import { ROLES, type Role, type Sound } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';
import { fits, TextField } from '../../shared/text-field.js';
import { theOne } from '@yunta/core/known/the';

/** Adds a sound, derived from another where that is said. @returns whether it could be */
export type AddSound = (name: string, role: Role, parent?: Id<'sound'>) => boolean;

const LEAVING = [
  { value: '', label: 'tails as they come' },
  { value: 'ring', label: 'left, it rings out' },
  { value: 'cut', label: 'left, it stops' },
] as const;

/** What is done to the chosen sound as a whole, behind one button. */
export const SoundTools = ({ sound, add }: { sound: Sound; add: AddSound }) => {
  const { rig, edit, select } = useRig();
  const [opened, open] = useState(false);
  const setRole = (role: Role) => edit(changeSound(sound, { role }), `${sound.name}: role ${role}`);
  const leave = (how: string) => {
    const { value, label } = theOne(LEAVING, (l) => l.value === how);
    edit(setLeaving(sound, value === '' ? undefined : value), `${sound.name}: ${label}`);
  };
  const derive = () => {
    open(false);
    add(derivedName(rig, sound), sound.role, sound.id);
  };
  const vary = (instrument: Device) => {
    open(false);
    const id = newPartId('sound');
    const { edit: made, songs } = variantFor(rig, id, sound, instrument);
    const also = songs.length ? `, called in ${songs.map((s) => s.title).join(', ')}` : '';
    if (edit(made, `${sound.name} for ${instrument.name}${also}`).length === 0) select(id);
  };
  const remove = () => {
    open(false);
    edit(removeSound(rig, sound.id), `Remove ${sound.name}`);
  };
  return (
    <Popover opened={opened} onChange={open} position="bottom-end" shadow="md" width={250} trapFocus>
      <Popover.Target>
        <Button variant="default" size="xs" aria-expanded={opened} onClick={() => open(!opened)}>
          This sound <span aria-hidden>&ensp;▾</span>
        </Button>
      </Popover.Target>
      <Popover.Dropdown className="this-sound">
        <ShownAs sound={sound} />
        <Select
          label={`Role of ${sound.name}`}
          size="xs"
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          data={[...ROLES]}
          value={sound.role}
          onChange={(role) => role && setRole(role)}
        />
        <Select
          label={`When ${sound.name} is left`}
          size="xs"
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          data={[...LEAVING]}
          value={sound.leaving ?? ''}
          onChange={(how) => how !== null && leave(how)}
        />
        <Button variant="default" size="xs" onClick={derive}>
          Derive from it
        </Button>
        {variantsToMake(rig, sound).map((d) => (
          <Button key={d.id} variant="default" size="xs" onClick={() => vary(d)}>
            <span className="clip">
              Another for {d.code} {d.name}
            </span>
          </Button>
        ))}
        <Button variant="default" size="xs" onClick={remove}>
          Remove it
        </Button>
      </Popover.Dropdown>
    </Popover>
  );
};

/** How many letters the narrowest display has on which this sound shows. */
const lettersFor = (rig: Rig, sound: Sound): number | undefined => {
  const most = sound.calls.flatMap((c) => memoryIn(partOf(rig, c.device), c.memory)?.limits?.nameLength ?? []);
  return most.length ? Math.min(...most) : undefined;
};

/** The short form of a name that is too long for the display of what calls it. */
const ShownAs = ({ sound }: { sound: Sound }) => {
  const { rig, edit } = useRig();
  const [typed, setTyped] = useState<string>();
  const letters = lettersFor(rig, sound);
  if (letters === undefined || ([...sound.name].length <= letters && sound.display === undefined)) return null;
  const text = typed ?? sound.display ?? '';
  const keep = () => {
    if (typed === undefined || [...typed.trim()].length > letters) return;
    edit(setDisplay(sound, typed.trim() || undefined), `${sound.name}: on the display`);
    setTyped(undefined);
  };
  return (
    <TextField
      most={LONGEST.name}
      size="xs"
      label={`On the display, ${letters} letters at most`}
      placeholder={[...sound.name].slice(0, letters).join('')}
      value={text}
      {...([...text.trim()].length > letters ? { error: `${[...text.trim()].length} letters` } : {})}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
};

/** Sounds that were made before there was a controller are offered its slots. */
export const OfferSlots = () => {
  const { rig, edit } = useRig();
  const uncalled = soundsInOrder(rig).filter((s) => s.calls.length === 0);
  const offer = uncalled.length ? giveSlots(rig) : undefined;
  if (!offer?.put.length) return null;
  const count = offer.put.length;
  return (
    <p className="offer-slots" role="status">
      {uncalled.length === 1 ? `“${uncalled[0]?.name}” is` : `${uncalled.length} sounds are`} called by nothing, and
      there {count === 1 ? 'is a free slot' : 'are free slots'}.{' '}
      <Button size="compact-sm" onClick={() => edit(offer, `Slots for ${count === 1 ? '1 sound' : `${count} sounds`}`)}>
        {count === 1 ? 'Give it the slot' : `Give ${count} of them slots, in this order`}
      </Button>
    </p>
  );
};

export const NewSound = ({ add, compact }: { add: AddSound; compact?: boolean }) => {
  const [name, setName] = useState('');
  const size = compact ? 'xs' : 'sm';
  return (
    <form
      className="one-line"
      onSubmit={(e) => {
        e.preventDefault();
        if (fits(name, LONGEST.name) && add(name.trim(), 'other')) setName('');
      }}
    >
      <TextField
        most={LONGEST.name}
        size={size}
        {...(compact ? { 'aria-label': 'Name of a new sound' } : { label: 'Name' })}
        placeholder="Verse clean"
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button type="submit" size={size} variant={compact ? 'default' : 'filled'} disabled={!fits(name, LONGEST.name)}>
        Add a sound
      </Button>
    </form>
  );
};
