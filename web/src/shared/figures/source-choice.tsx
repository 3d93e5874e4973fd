import './figures.css';
import { NativeSelect } from '@mantine/core';
import type { Device } from '@yunta/core/rig/device';
import { FIGURE_ORIGINS, ORIGIN_WORDS, sourceOf, withSource, type FigureSource } from '@yunta/core/rig/figure-source';
import { theOneOf } from '@yunta/core/known/keys';
import { withMaybe } from '@yunta/core/known/maybe';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok } from '@yunta/core/rig/result';
import { TypedText } from '../typed-text.js';
import { today } from '../today.js';

/** A measured figure that is written over was measured today. */
export const measuredAnew = (device: Device, of: string): Device => {
  const source = sourceOf(device, of);
  return source.from === 'measured' && source.on ? withSource(device, of, { ...source, on: today() }) : device;
};

/** Where a figure comes from; of a measured one also when, and with what. */
export const SourceFields = ({
  source,
  about,
  save,
}: {
  source: FigureSource;
  /** What it is a figure of, to be read out. */
  about: string;
  save: (source: FigureSource) => void;
}) => (
  <div className="figure-source">
    <NativeSelect
      size="xs"
      aria-label={`${about}: where it comes from`}
      value={source.from}
      data={FIGURE_ORIGINS.map((value) => ({ value, label: ORIGIN_WORDS[value] }))}
      onChange={(e) => {
        const from = theOneOf(FIGURE_ORIGINS, e.currentTarget.value);
        save(from === 'measured' ? { from, on: today() } : { from });
      }}
    />
    {source.from === 'measured' && (
      <>
        <span className="soft">{source.on ? `on ${source.on} with` : 'with'}</span>
        <TypedText
          label={`${about}: measured with what`}
          placeholder="a meter"
          most={LONGEST.remark}
          text={source.with ?? ''}
          read={(typed) => {
            save(withMaybe(source, 'with', typed.trim() || undefined));
            return ok(typed);
          }}
        />
      </>
    )}
  </div>
);

/** The same of a figure of a box. */
export const SourceChoice = ({
  device,
  of,
  about,
  save,
}: {
  device: Device;
  /** By what its source is noted. */
  of: string;
  about: string;
  save: (device: Device) => void;
}) => (
  <SourceFields source={sourceOf(device, of)} about={about} save={(source) => save(withSource(device, of, source))} />
);
