import { sayRefusal, type Refusal, type Result } from '@yunta/core/rig/result';
import { useState } from 'react';
import { TextField } from './text-field.js';

/** A text that is read when its field is left or by Enter, or said to be wrong; what cannot be read stays in it. */
export const TypedText = ({
  label,
  text,
  read,
  most,
  placeholder,
}: {
  label: string;
  text: string;
  read: (text: string) => Result<unknown, readonly Refusal[]>;
  most: number;
  placeholder?: string;
}) => {
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState('');
  const take = () => {
    if (typed === undefined) return;
    const result = read(typed);
    setWrong(result.ok ? '' : result.error.map(sayRefusal).join(' '));
    if (result.ok) setTyped(undefined);
  };
  return (
    <TextField
      size="xs"
      most={most}
      aria-label={label}
      {...(placeholder ? { placeholder } : {})}
      value={typed ?? text}
      {...(wrong ? { error: wrong } : {})}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === 'Enter' && take()}
    />
  );
};
