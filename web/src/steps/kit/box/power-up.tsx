import { Select } from '@mantine/core';
import type { Control } from '@yunta/core/rig/device';
import { theOne } from '@yunta/core/known/the';

const POWER_UP = [
  { value: 'left', label: 'as you left it' },
  { value: 'loaded', label: 'as programmed' },
  { value: 'unknown', label: 'not known' },
] as const;
/** @example powerUpText({ ...control, powerUp: 'left' }) // 'as you left it' */
export const powerUpText = (control: Control): string =>
  typeof control.powerUp === 'object'
    ? `always ${control.powerUp.at}`
    : theOne(POWER_UP, (p) => p.value === control.powerUp).label;

/** How a control comes up when power comes on. */
export const PowerUp = ({ control, save }: { control: Control; save: (powerUp: Control['powerUp']) => void }) => {
  const fixed =
    'values' in control.domain
      ? control.domain.values.slice(0, 8).map((v) => ({ value: `at:${v}`, label: `always ${v}` }))
      : 'min' in control.domain
        ? [{ value: `at:${control.domain.min}`, label: `always ${control.domain.min}` }]
        : [];
  const value = typeof control.powerUp === 'object' ? `at:${control.powerUp.at}` : control.powerUp;
  const options = [
    ...POWER_UP,
    ...fixed,
    ...(typeof control.powerUp === 'object' && !fixed.some((f) => f.value === value)
      ? [{ value, label: `always ${control.powerUp.at}` }]
      : []),
  ];
  return (
    <Select
      aria-label={`${control.name ?? control.id} at power-up`}
      size="xs"
      allowDeselect={false}
      data={options}
      value={value}
      onChange={(v) => {
        if (!v) return;
        const usual = POWER_UP.find((p) => p.value === v);
        if (usual) return save(usual.value);
        const text = v.slice(3);
        save({
          at:
            'values' in control.domain ? (control.domain.values.find((x) => String(x) === text) ?? text) : Number(text),
        });
      }}
    />
  );
};
