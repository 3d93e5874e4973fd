import { Button, NativeSelect } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { END_KINDS, SOURCE_KINDS, type Device, type End } from '@yunta/core/rig/device';
import { KeptField } from '../../../shared/kept-field.js';
import { surely } from '@yunta/core/known/the';
import { Choice } from '../../../shared/choice.js';

const END_NAMES: Readonly<Record<End['is'], string>> = {
  source: 'sound begins here',
  house: 'the house hears it',
  stage: 'the stage hears it',
  player: 'the player hears it',
  recorder: 'it is recorded',
  tuner: 'a tuner reads it',
};

/** Where sound begins in this box, or where somebody hears it: instruments, loudspeakers, desks. */
export const Ends = ({ device, save }: { device: Device; save: (ends: readonly End[]) => void }) => {
  const ends = device.ends ?? [];
  const points = [
    ...new Set([
      ...device.jacks.filter((j) => j.kind === 'audio' || j.kind === 'air').map((j) => j.id),
      ...device.chains.flatMap((c) => [...c.from, ...c.to].map((t) => t.at)).filter((at) => at.startsWith('#')),
    ]),
  ];
  const set = (i: number, part: Partial<End>) => save(ends.map((e, k) => (k === i ? { ...e, ...part } : e)));
  return (
    <section className="card">
      <h2>Where sound begins, or is heard</h2>
      {ends.length === 0 && (
        <p className="soft" style={{ margin: '2px 0 6px' }}>
          Nowhere in this box: the signal only passes.
        </p>
      )}
      {ends.length > 0 && (
        <table className="plain tight">
          <thead>
            <tr>
              <th>at</th>
              <th>what happens there</th>
              <th>called</th>
              <th>what sounds</th>
              <th>
                <span className="visually-hidden">take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {ends.map((end, i) => (
              <tr key={i}>
                <td>
                  <NativeSelect
                    size="xs"
                    aria-label={`Point of ${end.name}`}
                    data={points.includes(end.at) ? points : [end.at, ...points]}
                    value={end.at}
                    onChange={(e) => set(i, { at: e.currentTarget.value })}
                  />
                </td>
                <td>
                  <Choice
                    aria-label={`What happens at ${end.name}`}
                    data={END_KINDS.map((k) => ({ value: k, label: END_NAMES[k] }))}
                    value={end.is}
                    choose={(is) => set(i, { is })}
                  />
                </td>
                <td>
                  <KeptField
                    most={LONGEST.name}
                    size="xs"
                    aria-label={`Name of place ${i + 1}`}
                    value={end.name}
                    save={(name) => set(i, { name })}
                  />
                </td>
                <td>
                  {end.is === 'source' && (
                    <Choice
                      aria-label={`What sounds at ${end.name}`}
                      data={SOURCE_KINDS}
                      value={end.what ?? 'guitar'}
                      choose={(what) => set(i, { what })}
                    />
                  )}
                </td>
                <td style={{ textAlign: 'right' }}>
                  <Button
                    size="compact-xs"
                    variant="default"
                    aria-label={`Take out ${end.name}`}
                    onClick={() => save(ends.filter((_, k) => k !== i))}
                  >
                    Take out
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {points.length > 0 && (
        <Button
          mt={8}
          size="compact-sm"
          variant="default"
          onClick={() => save([...ends, { at: surely(points.at(-1)), is: 'stage', name: device.name }])}
        >
          Add a place
        </Button>
      )}
    </section>
  );
};
