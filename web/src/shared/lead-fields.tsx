import { changeCable } from '@yunta/core/edits/cables';
import type { Id } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import { partOf } from '@yunta/core/rig/rig';
import { useRig } from './rig-context.js';
import { TypedText } from './typed-text.js';

interface LeadField {
  /** What it is called, to be read out. */
  readonly of: string;
  readonly cable: Id<'cable'>;
}

/** The length of a lead, tried where its effect is seen. */
export const Metres = ({ of, cable: id }: LeadField) => {
  const { rig, edit } = useRig();
  const cable = partOf(rig, id);
  if (!cable) return null;
  return (
    <TypedText
      label={`${of}, metres`}
      most={LONGEST.label}
      text={String(cable.m ?? '')}
      read={(typed) => {
        const m = Number(typed.trim().replace(',', '.').replace(/\s*m$/i, ''));
        if (!(m > 0 && m <= 1000))
          return refuse([
            {
              code: 'length',
              where: of,
              wrong: `"${typed.trim().slice(0, 20)}" is no length of a lead.`,
              would: 'Write metres above 0 and up to 1000.',
            },
          ]);
        edit(changeCable(cable, { m }), `${of}: ${m} m`);
        return ok(m);
      }}
    />
  );
};

/** The gauge of a loudspeaker lead. */
export const Gauge = ({ of, cable: id, usual }: LeadField & { usual: number }) => {
  const { rig, edit } = useRig();
  const cable = partOf(rig, id);
  if (!cable) return null;
  return (
    <TypedText
      label={`${of}, gauge`}
      most={LONGEST.label}
      placeholder={`${usual}, assumed`}
      text={cable.awg === undefined ? '' : String(cable.awg)}
      read={(typed) => {
        const text = typed.trim().replace(/^awg\s*/i, '');
        const awg = text === '' ? undefined : Number(text);
        if (awg !== undefined && !(Number.isInteger(awg) && awg >= 0 && awg <= 40))
          return refuse([
            {
              code: 'gauge',
              where: of,
              wrong: `"${typed.trim().slice(0, 20)}" is no gauge of a wire.`,
              would: 'Write its AWG number, from 0 to 40. A lower number is a thicker wire.',
            },
          ]);
        edit(changeCable(cable, { awg }), `${of}: AWG ${awg ?? 'not said'}`);
        return ok(awg);
      }}
    />
  );
};
