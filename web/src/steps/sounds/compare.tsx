import { Select } from '@mantine/core';
import { theId, type Id } from '@yunta/core/rig/ids';
import { all, partOf, soundsInOrder } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { RunDrawing } from '../../picture/run.js';
import { surely } from '@yunta/core/known/the';

/** Beside another sound, or beside itself in another hook-up: both runs lined up, what differs marked and said. */
export const Compare = ({ sound }: { sound: Sound }) => {
  const { rig, hookup } = useRig();
  const others = soundsInOrder(rig).filter((s) => s.id !== sound.id);
  const hookups = all(rig, 'hookup').filter((h) => h.id !== hookup?.id);
  const [chosen, choose] = useState<string | null>(null);
  const other = chosen ?? others[0]?.id ?? hookups[0]?.id;
  const inHookup = hookups.find((h) => h.id === other);
  const right =
    hookup && other
      ? inHookup
        ? { sound: sound.id, hookup: inHookup.id }
        : { sound: theId('sound', other), hookup: hookup.id }
      : undefined;
  const both = useAsked(
    ['side by side', sound.id, right?.sound, right?.hookup],
    (worker) => worker.answers.sideBySide({ sound: sound.id, hookup: surely(hookup).id }, surely(right)),
    right !== undefined,
  );
  if (!right) return <p className="soft">There is no other sound and no other hook-up to compare with.</p>;
  const said = (id: Id<'device'>) => partOf(rig, id) ?? { code: '?', name: id };
  const names: readonly [string, string] = inHookup
    ? [surely(hookup).name, inHookup.name]
    : [sound.name, partOf(rig, right.sound)?.name ?? ''];
  return (
    <div>
      <Select
        size="xs"
        w={260}
        aria-label="Compare with"
        allowDeselect={false}
        searchable
        value={other ?? null}
        onChange={choose}
        data={[
          { group: 'Another sound', items: others.map((s) => ({ value: s.id, label: s.name })) },
          { group: 'The same sound in', items: hookups.map((h) => ({ value: h.id, label: h.name })) },
        ].filter((g) => g.items.length)}
      />
      {both && (
        <>
          {(
            [
              ['a', names[0]],
              ['b', names[1]],
            ] as const
          ).map(([side, name]) => (
            <div key={side}>
              <strong style={{ fontSize: 14 }}>{name}</strong>
              {both[side].some(Boolean) ? (
                <RunDrawing
                  names="in one row"
                  items={both[side]}
                  beside={both[side === 'a' ? 'b' : 'a']}
                  label={`Run of ${name}`}
                  said={said}
                  differ={both.differ}
                />
              ) : (
                <p className="soft">Silent.</p>
              )}
            </div>
          ))}
          {both.changes.length === 0 ? (
            <p className="soft">They differ in nothing.</p>
          ) : (
            <table className="plain" style={{ width: 'auto' }}>
              <thead>
                <tr>
                  <th>differs</th>
                  <th>{names[0]}</th>
                  <th>{names[1]}</th>
                </tr>
              </thead>
              <tbody>
                {both.changes.map((c) => (
                  <tr key={c.text}>
                    <td>{c.text}</td>
                    <td className="mono">{c.a}</td>
                    <td className="mono">{c.b}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </>
      )}
    </div>
  );
};
