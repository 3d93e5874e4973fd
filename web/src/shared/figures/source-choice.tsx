import './figures.css';
import { NativeSelect } from '@mantine/core';
import type { Device } from '@yunta/core/rig/device';
import { FIGURE_ORIGINS, ORIGIN_WORDS, sourceOf, withSource } from '@yunta/core/rig/figure-source';
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

/** Where a figure of a box comes from; of a measured one also when, and with what. */
export const SourceChoice = ({
  device,
  of,
  about,
  save,
}: {
  device: Device;
  /** By what its source is noted. */
  of: string;
  /** What it is a figure of, to be read out. */
  about: string;
  save: (device: Device) => void;
}) => {
  const source = sourceOf(device, of);
  return (
    <div className="figure-source">
      <NativeSelect
        size="xs"
        aria-label={`${about}: where it comes from`}
        value={source.from}
        data={FIGURE_ORIGINS.map((value) => ({ value, label: ORIGIN_WORDS[value] }))}
        onChange={(e) => {
          const from = theOneOf(FIGURE_ORIGINS, e.currentTarget.value);
          save(withSource(device, of, from === 'measured' ? { from, on: today() } : { from }));
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
              save(withSource(device, of, withMaybe(source, 'with', typed.trim() || undefined)));
              return ok(typed);
            }}
          />
        </>
      )}
    </div>
  );
};
