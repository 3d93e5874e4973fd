import { Button, Chip, Group } from '@mantine/core';
import { gainLadder, soundOfRung, type Rung } from '@yunta/core/electric/gain';
import { partOf } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { newPartId } from '../../session/ids.js';

const USUALLY = 5;

/**
 * All that the gain stages can make together, from the least driven to the most; what is used already, what is hardly
 * another, and a sound of any with one click.
 */
export const GainLadder = () => {
  const { rig, edit, select } = useRig();
  const stages = useAsked(['gain stages'], (worker) => worker.answers.gainStages());
  const [picked, pick] = useState<string[]>();
  const chosen = useMemo(() => picked ?? stages?.slice(-USUALLY).map((s) => s.stage) ?? [], [picked, stages]);
  const rungs = useMemo(
    () => gainLadder(rig, stages?.filter((s) => chosen.includes(s.stage)) ?? []),
    [rig, stages, chosen],
  );
  if (!stages) return null;
  const most = Math.max(1, ...rungs.map((r) => r.driven));
  const make = (rung: Rung) => {
    const id = newPartId('sound');
    if (edit(soundOfRung(rig, rung, id), `Sound of ${rung.text}`).length === 0) select(id);
  };
  return (
    <section className="card" style={{ marginTop: 12 }} aria-label="Gain ladder">
      <div style={{ display: 'flex', gap: 12, alignItems: 'center', flexWrap: 'wrap' }}>
        <h2 style={{ margin: 0 }}>Gain ladder</h2>
        <Chip.Group multiple value={chosen} onChange={pick}>
          <Group gap={6} role="group" aria-label="Gain stages">
            {stages.map((s) => (
              <Chip key={s.stage} value={s.stage} size="xs" variant="outline" color="dark">
                {s.text}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
      </div>
      {stages.length === 0 ? (
        <p className="soft">Nothing in this hook-up makes gain.</p>
      ) : (
        <>
          <p className="soft" style={{ margin: '6px 0', fontSize: 14 }}>
            Average levels with typical gains, assumed: knobs and the hand decide. “Driven” is by how much the stages
            together are asked for more than they can give.
          </p>
          <div className="ladder">
            <table className="plain">
              <thead>
                <tr>
                  <th>stages in</th>
                  <th>into, dBu</th>
                  <th>out, dBu</th>
                  <th>driven, dB</th>
                  <th>used by</th>
                  <th>
                    <span className="visually-hidden">make a sound</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {rungs.map((r) => (
                  <tr key={r.text}>
                    <td>
                      {r.likeTheOneBefore && <span title="hardly another than the one before">≈ </span>}
                      {r.text}
                      {r.likeTheOneBefore && (
                        <span className="visually-hidden">, hardly another than the one before</span>
                      )}
                    </td>
                    <td className="mono">{r.into}</td>
                    <td className="mono">{r.out}</td>
                    <td className="mono" style={{ whiteSpace: 'nowrap' }}>
                      <span
                        className="drive"
                        style={{ width: Math.round((r.driven / most) * 90) }}
                        aria-hidden="true"
                      />
                      {r.driven}
                    </td>
                    <td className={r.usedBy.length ? '' : 'soft'}>
                      {r.usedBy.map((id) => partOf(rig, id)?.name).join(', ') || '—'}
                    </td>
                    <td style={{ textAlign: 'right' }}>
                      <Button
                        variant="default"
                        size="compact-xs"
                        aria-label={`Make a sound of ${r.text}`}
                        onClick={() => make(r)}
                      >
                        Make a sound
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
    </section>
  );
};
