import { NumberInput } from '@mantine/core';
import type { Refusal } from '@yunta/core/rig/result';
import { useState } from 'react';

interface AmountOf {
  readonly label?: string;
  readonly says: string;
  readonly value: number | undefined;
  readonly width?: number;
  readonly disabled?: boolean;
  /** Undefined when the field was emptied. */
  readonly save: (value: number | undefined) => readonly Refusal[];
}

/**
 * A number that counts once it is typed to its end: Enter, or leaving the field. What cannot be is said beside it, and
 * the old number stays.
 */
export const Amount = ({ label, says, value, width = 76, disabled = false, save }: AmountOf) => {
  const [typed, type] = useState<string | number>();
  const [refused, refuse] = useState('');
  const commit = () => {
    if (typed === undefined) return;
    const wrong = save(typed === '' ? undefined : Number(typed));
    refuse(wrong.map((r) => `${r.wrong} ${r.would}`).join(' '));
    type(undefined);
  };
  return (
    <NumberInput
      size="xs"
      w={refused ? 200 : width}
      {...(label ? { label } : {})}
      aria-label={says}
      placeholder="open"
      disabled={disabled}
      value={typed ?? value ?? ''}
      error={refused}
      onChange={type}
      onBlur={commit}
      onKeyDown={(e) => e.key === 'Enter' && commit()}
    />
  );
};
