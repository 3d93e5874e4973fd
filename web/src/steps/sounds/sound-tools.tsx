import { Button, Select } from '@mantine/core';
import { changeSound, removeSound, setLeaving } from '@yunta/core/edits/sounds';
import type { Id } from '@yunta/core/rig/ids';
import { cutTo, LONGEST } from '@yunta/core/rig/limits';
import { ROLES, type Role, type Sound } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { fits, TextField } from '../../shared/text-field.js';
import { theOne } from '@yunta/core/known/the';

/** Adds a sound, derived from another where that is said. */
export type AddSound = (name: string, role: Role, parent?: Id<'sound'>) => void;

const LEAVING = [
  { value: '', label: 'tails as they come' },
  { value: 'ring', label: 'left, it rings out' },
  { value: 'cut', label: 'left, it stops' },
] as const;

/** What is done to the chosen sound as a whole. */
export const SoundTools = ({ sound, add }: { sound: Sound; add: AddSound }) => {
  const { rig, edit } = useRig();
  const setRole = (role: Role) => edit(changeSound(sound, { role }), `${sound.name}: role ${role}`);
  const leave = (how: string) => {
    const { value, label } = theOne(LEAVING, (l) => l.value === how);
    edit(setLeaving(sound, value === '' ? undefined : value), `${sound.name}: ${label}`);
  };
  return (
    <div className="sheet-tools">
      <strong className="clip chosen-name">{sound.name}</strong>
      <Select
        aria-label={`Role of ${sound.name}`}
        size="xs"
        w={120}
        allowDeselect={false}
        data={[...ROLES]}
        value={sound.role}
        onChange={(role) => role && setRole(role)}
      />
      <Select
        aria-label={`When ${sound.name} is left`}
        size="xs"
        w={150}
        allowDeselect={false}
        data={[...LEAVING]}
        value={sound.leaving ?? ''}
        onChange={(how) => how !== null && leave(how)}
      />
      <Button
        variant="default"
        size="xs"
        onClick={() => add(`${cutTo(sound.name, LONGEST.name - 2)} 2`, sound.role, sound.id)}
      >
        Derive from it
      </Button>
      <Button variant="default" size="xs" onClick={() => edit(removeSound(rig, sound.id), `Remove ${sound.name}`)}>
        Remove it
      </Button>
      <div className="at-the-end">
        <NewSound add={add} compact />
      </div>
    </div>
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
        if (fits(name, LONGEST.name)) {
          add(name.trim(), 'other');
          setName('');
        }
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
