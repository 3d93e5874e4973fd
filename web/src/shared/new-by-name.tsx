import { Button } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { fits, TextField } from './text-field.js';

interface NewByNameProps {
  /** What the field asks for. @example 'Name of a new move' */
  readonly label: string;
  readonly placeholder: string;
  readonly button: string;
  /** @returns whether it could be: the field is empty again then */
  readonly add: (name: string) => boolean;
}

/** Something new of which nothing but its name is needed: typed, Enter, and the next one. */
export const NewByName = ({ label, placeholder, button, add }: NewByNameProps) => {
  const [name, setName] = useState('');
  return (
    <form
      className="one-line at-the-end"
      onSubmit={(e) => {
        e.preventDefault();
        if (fits(name, LONGEST.name) && add(name.trim())) setName('');
      }}
    >
      <TextField
        most={LONGEST.name}
        size="xs"
        aria-label={label}
        placeholder={placeholder}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button type="submit" size="xs" variant="default" disabled={!fits(name, LONGEST.name)}>
        {button}
      </Button>
    </form>
  );
};
