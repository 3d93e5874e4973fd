import './figures.css';
import { Popover, UnstyledButton } from '@mantine/core';
import { figuresOf } from '@yunta/core/catalogue/figures';
import type { FigureInput } from '@yunta/core/derive/views/figure-input';
import type { Device } from '@yunta/core/rig/device';
import { sourceText } from '@yunta/core/rig/figure-source';
import { partOf } from '@yunta/core/rig/rig';
import { useRig } from '../rig-context.js';
import { FigureField } from './figure-field.js';
import { SourceChoice } from './source-choice.js';

/** The figures of boxes that went into a number, each to be written over where it is read. */
export const FigureChips = ({ from }: { from: readonly FigureInput[] }) => (
  <span className="figure-chips">
    {from.map((input) => (
      <FigureChip key={`${input.device} ${input.of}`} input={input} />
    ))}
  </span>
);

const FigureChip = ({ input }: { input: FigureInput }) => {
  const { rig } = useRig();
  const device = partOf(rig, input.device);
  if (!device) return null;
  const { what, counted, source } = input;
  return (
    <Popover position="bottom-start" shadow="md" trapFocus returnFocus withinPortal>
      <Popover.Target>
        <UnstyledButton
          className={source.from === 'assumed' ? 'figure-chip is-assumed' : 'figure-chip'}
          aria-label={`${device.code}, ${input.where}, ${what}: ${counted}, ${sourceText(source)}. Write it over`}
        >
          {what} <strong>{counted}</strong> <span className="soft">{sourceText(source)}</span>
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown>
        <WrittenOver device={device} input={input} />
      </Popover.Dropdown>
    </Popover>
  );
};

/** A figure with its source, both to be changed. */
const WrittenOver = ({ device, input: { of, what, where, counted } }: { device: Device; input: FigureInput }) => {
  const { edit } = useRig();
  const figure = figuresOf(device).find((f) => f.source === of);
  if (!figure) return <p className="soft">The box has no such place any more.</p>;
  const save = (next: Device) => edit({ put: [next], remove: [] }, `${device.code}: ${where}, ${what}`);
  return (
    <div className="figure-over">
      <strong>
        {device.code} {device.name}: {where}, {what}
      </strong>
      <FigureField figure={figure} device={device} save={save} usual={counted} />
      <span className="soft">
        {figure.text === '' ? `Reckoned with ${counted}. Write it as ${figure.like}.` : `As ${figure.like}.`}
      </span>
      {figure.text !== '' && <SourceChoice device={device} of={of} about={`${where}, ${what}`} save={save} />}
    </div>
  );
};
