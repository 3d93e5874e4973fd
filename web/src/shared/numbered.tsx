import { NumberInput } from '@mantine/core';
import { useState } from 'react';

interface NumberProps {
  readonly label: string;
  readonly value: number | undefined;
  readonly save: (value: number) => void;
  readonly clear?: () => void;
  readonly min?: number;
  readonly max?: number;
  readonly decimal?: boolean;
  readonly shown?: boolean;
}

/**
 * A number of a box, kept when its field is left or by Enter, within its bounds; a field that is emptied takes the
 * number away where it may be absent.
 */
export const Numbered = ({ label, value, save, clear, min = 0, max = 127, decimal = false, shown }: NumberProps) => {
  const [typed, setTyped] = useState<number | string>();
  const keep = () => {
    if (typeof typed === 'number') {
      const within = Math.min(max, Math.max(min, typed));
      if (within !== value) save(within);
    } else if (typed === '' && value !== undefined) clear?.();
    setTyped(undefined);
  };
  return (
    <NumberInput
      size="xs"
      hideControls
      w={shown ? undefined : 88}
      {...(shown ? { label } : { 'aria-label': label })}
      clampBehavior="none"
      allowDecimal={decimal}
      value={typed ?? value ?? ''}
      onChange={setTyped}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
};
