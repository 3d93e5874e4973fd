import { Button } from '@mantine/core';
import { useState } from 'react';
import { TextField } from './text-field.js';

interface TypedLineProps {
  readonly label: string;
  readonly description: string;
  readonly placeholder: string;
  readonly button: string;
  readonly most: number;
  /** @returns why it could not be taken; what was typed stays then */
  readonly add: (text: string) => readonly string[];
}

/** A line that is read when Enter is pressed; what cannot be read stays with its reason beside it. */
export const TypedLine = ({ label, description, placeholder, button, most, add }: TypedLineProps) => {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState('');
  return (
    <form
      className="typed-line"
      onSubmit={(e) => {
        e.preventDefault();
        const refused = add(text);
        setWrong(refused.join(' '));
        if (refused.length === 0) setText('');
      }}
    >
      <TextField
        size="xs"
        label={label}
        description={description}
        placeholder={placeholder}
        most={most}
        value={text}
        error={wrong || undefined}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setWrong('');
        }}
      />
      <Button type="submit" size="xs" variant="default" disabled={text.trim() === ''}>
        {button}
      </Button>
    </form>
  );
};
