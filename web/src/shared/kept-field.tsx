import type { TextInputProps } from '@mantine/core';
import { useState } from 'react';
import { fits, TextField } from './text-field.js';

interface KeptFieldProps extends Omit<TextInputProps, 'value' | 'onChange' | 'onBlur'> {
  readonly value: string;
  readonly most: number;
  readonly save: (text: string) => void;
  /** It may be emptied. */
  readonly mayBeEmpty?: boolean;
}

/** A text that is kept when its field is left, or by Enter; Escape takes back what was typed. It is not empty unless it may be. */
export const KeptField = ({ value, most, save, mayBeEmpty = false, ...rest }: KeptFieldProps) => {
  const [text, setText] = useState(value);
  const [last, setLast] = useState(value);
  if (last !== value) {
    setLast(value);
    setText(value);
  }
  const commit = () => {
    if (!text.trim() && !mayBeEmpty) setText(value);
    else if (text !== value && fits(text, most)) save(text.trim());
  };
  return (
    <TextField
      {...rest}
      most={most}
      value={text}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') commit();
        if (e.key === 'Escape') setText(value);
      }}
    />
  );
};
