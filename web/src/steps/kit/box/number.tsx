import { NumberInput } from '@mantine/core';

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

/** A number of a box; a field that is emptied takes the number away where it may be absent. */
export const Numbered = ({ label, value, save, clear, min = 0, max = 127, decimal = false, shown }: NumberProps) => (
  <NumberInput
    size="xs"
    hideControls
    w={shown ? undefined : 88}
    {...(shown ? { label } : { 'aria-label': label })}
    min={min}
    max={max}
    clampBehavior="strict"
    allowDecimal={decimal}
    value={value ?? ''}
    onChange={(v) => (typeof v === 'number' ? save(v) : v === '' && clear?.())}
  />
);
