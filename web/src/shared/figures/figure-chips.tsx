import './figures.css';
import { Popover, UnstyledButton } from '@mantine/core';
import { figuresOf } from '@yunta/core/catalogue/figures';
import type { FigureInput } from '@yunta/core/derive/views/figure-input';
import type { Device } from '@yunta/core/rig/device';
import { sourceText } from '@yunta/core/rig/figure-source';
import { partOf } from '@yunta/core/rig/rig';
import type { ReactNode } from 'react';
import { useRig } from '../rig-context.js';
import { FigureField } from './figure-field.js';
import { SourceChoice } from './source-choice.js';

/** A figure of a box that went into a number, to be written over where it is read. */
export const FigureChip = ({ input }: { input: FigureInput }) => {
  const { rig } = useRig();
  const { what, counted, source, where } = input;
  const code = partOf(rig, input.device)?.code ?? '';
  return (
    <Chip
      says={
        counted === undefined ? (
          <span className="soft">{what}: not said</span>
        ) : (
          <>
            <strong>{counted}</strong> <span className="soft">{sourceText(source)}</span>
          </>
        )
      }
      about={`${code}, ${where}, ${what}: ${counted === undefined ? 'not said' : `${counted}, ${sourceText(source)}`}. Write it over`}
      isAssumed={source.from === 'assumed'}
    >
      <WrittenOver input={input} />
    </Chip>
  );
};

/** How a number came about, with every figure that went into it. */
export const HowChip = ({ of, how, from }: { of: string; how: string; from: readonly FigureInput[] }) => {
  const says = surenessText(from);
  return (
    <Chip says={says} about={`How ${of} came about: ${says}`} isAssumed={says !== 'as written down'}>
      <p>{how}.</p>
      {from.map((input) => (
        <WrittenOver key={`${input.device} ${input.of}`} input={input} />
      ))}
    </Chip>
  );
};

/** How sure a number is by the figures that it comes from. */
const surenessText = (from: readonly FigureInput[]): string => {
  const assumed = from.filter((f) => f.source.from === 'assumed').length;
  if (assumed === 0) return 'as written down';
  return assumed === from.length ? 'assumed' : 'partly assumed';
};

const Chip = ({
  says,
  about,
  isAssumed,
  children,
}: {
  says: ReactNode;
  about: string;
  isAssumed: boolean;
  children: ReactNode;
}) => (
  <Popover position="bottom-end" shadow="md" trapFocus returnFocus withinPortal>
    <Popover.Target>
      <UnstyledButton className={isAssumed ? 'figure-chip is-assumed' : 'figure-chip'} aria-label={about}>
        {says}
      </UnstyledButton>
    </Popover.Target>
    <Popover.Dropdown>
      <div className="figure-over">{children}</div>
    </Popover.Dropdown>
  </Popover>
);

/** A figure with its source, both to be changed. */
const WrittenOver = ({ input: { device: id, of, what, where, counted } }: { input: FigureInput }) => {
  const { rig, edit } = useRig();
  const device = partOf(rig, id);
  const figure = device && figuresOf(device).find((f) => f.source === of);
  if (!device || !figure) return <p className="soft">The box has no such place any more.</p>;
  const save = (next: Device) => edit({ put: [next], remove: [] }, `${device.code}: ${where}, ${what}`);
  return (
    <div className="figure-one">
      <strong>
        {device.code}, {where}: {what}
      </strong>
      <FigureField figure={figure} device={device} save={save} {...(counted === undefined ? {} : { usual: counted })} />
      {figure.text === '' ? (
        <span className="soft">
          Nobody wrote it down{counted === undefined ? '' : `: ${counted} is assumed`}. Write it as {figure.like}.
        </span>
      ) : (
        <SourceChoice device={device} of={of} about={`${where}, ${what}`} save={save} />
      )}
    </div>
  );
};
