import { NativeSelect } from '@mantine/core';
import { withFigure, type Figure } from '@yunta/core/catalogue/figures';
import { readWhen, whenWords } from '@yunta/core/catalogue/inside';
import type { Device } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { TypedText } from '../typed-text.js';
import { Conditions } from './conditions.js';
import { measuredAnew } from './source-choice.js';

/** A figure of a box, to be written over: typed, chosen, or put together of conditions. */
export const FigureField = ({
  figure,
  device,
  save,
  usual,
}: {
  figure: Figure;
  device: Device;
  save: (device: Device) => void;
  /** What counts as long as nobody writes it down. */
  usual?: string;
}) => {
  const read = (text: string) => {
    const done = withFigure(device, figure.key, text);
    if (done.ok) save(figure.source && text !== '' ? measuredAnew(done.value, figure.source) : done.value);
    return done;
  };
  const label = `${figure.where}, ${figure.what}`;
  if (figure.isWhen)
    return (
      <Conditions
        device={device}
        of={label}
        when={readWhen(figure.text)}
        always="not said"
        save={(when) => read(when ? whenWords(when) : '')}
      />
    );
  return figure.choices ? (
    <NativeSelect
      size="xs"
      aria-label={label}
      value={figure.text}
      data={[{ value: '', label: 'not said' }, ...figure.choices]}
      onChange={(e) => read(e.currentTarget.value)}
    />
  ) : (
    <TypedText most={LONGEST.name} label={label} placeholder={usual ?? figure.like} text={figure.text} read={read} />
  );
};
