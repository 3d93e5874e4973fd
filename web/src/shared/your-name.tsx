import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { personHere, rememberPerson } from '../session/person.js';
import { TextField } from './text-field.js';

/** Who is at this keyboard: told once, it stands beside all that is done from here. */
export const YourName = ({ told }: { told?: (name: string) => void }) => {
  const [name, setName] = useState(personHere);
  return (
    <TextField
      size="xs"
      w={200}
      most={LONGEST.word}
      aria-label="Your name, for the history"
      placeholder="your name, for the history"
      value={name}
      onChange={(e) => {
        setName(e.currentTarget.value);
        rememberPerson(e.currentTarget.value);
        told?.(e.currentTarget.value);
      }}
    />
  );
};
