import { Button } from '@mantine/core';
import { gainText, readGain } from '@yunta/core/catalogue/figures';
import type { Device, Tap } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { Choice } from '../../../shared/choice.js';
import { TypedText } from '../../../shared/typed-text.js';
import { Conditions } from '../../../shared/figures/conditions.js';

const SIDES = [
  { value: 'both', label: 'both sides' },
  { value: 'left', label: 'left side' },
  { value: 'right', label: 'right side' },
] as const;

/** Every point that signal can come from or go to: poles of jacks that take or give, and buses inside the box. */
const pointsOf = (device: Device, takes: 'in' | 'out'): readonly string[] => [
  ...new Set([
    ...device.jacks.flatMap((j) => [
      ...(j.poles.tip === takes ? [j.id] : []),
      ...(j.poles.ring === takes ? [`${j.id}:ring`] : []),
    ]),
    ...device.chains.flatMap((c) => [...c.from, ...c.to].map((t) => t.at)).filter((at) => at.startsWith('#')),
    '#bus',
  ]),
];

/** The jacks at one end of a way or a loop: which side, when, and by how much louder or softer. */
export const Taps = ({
  device,
  of,
  poles,
  taps,
  save,
}: {
  device: Device;
  of: string;
  /** Whether sound comes in here or goes out. */
  poles: 'in' | 'out';
  taps: readonly Tap[];
  save: (taps: readonly Tap[]) => void;
}) => {
  const points = pointsOf(device, poles);
  const put = (i: number, { leg, when, gain, at }: Partial<Tap> & { readonly at: string }) =>
    save(
      taps.with(i, {
        at,
        ...(leg ? { leg } : {}),
        ...(when ? { when } : {}),
        ...(gain === undefined ? {} : { gain }),
      }),
    );
  return (
    <div className="taps">
      {taps.map((tap, i) => (
        <div key={i} className="tap">
          <Choice
            aria-label={`${of}, jack ${i + 1}`}
            data={points.includes(tap.at) ? points : [tap.at, ...points]}
            value={tap.at}
            choose={(at) => put(i, { ...tap, at })}
          />
          <Choice
            aria-label={`${of}, side at ${tap.at}`}
            data={SIDES}
            value={tap.leg ?? 'both'}
            choose={(leg) => put(i, { ...tap, leg: leg === 'both' ? undefined : leg })}
          />
          <TypedText
            most={LONGEST.name}
            label={`${of}, trim at ${tap.at}`}
            placeholder="trim, dB"
            text={tap.gain === undefined ? '' : gainText(tap.gain)}
            read={(text) => {
              const gain = readGain(text);
              if (gain.ok) put(i, { ...tap, gain: gain.value });
              return gain;
            }}
          />
          <Conditions
            device={device}
            of={`${of}, ${tap.at}`}
            when={tap.when}
            always="always"
            save={(when) => put(i, { ...tap, when })}
          />
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`${of}: drop ${tap.at}`}
            onClick={() => save(taps.filter((_, k) => k !== i))}
          >
            ✕
          </Button>
        </div>
      ))}
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`${of}: add a jack`}
        onClick={() => save([...taps, { at: points.find((p) => !taps.some((t) => t.at === p)) ?? '#bus' }])}
      >
        Add a jack
      </Button>
    </div>
  );
};
