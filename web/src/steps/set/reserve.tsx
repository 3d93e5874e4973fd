import { Button, Select } from '@mantine/core';
import type { ReserveSound } from '@yunta/core/derive/views/reserve';
import { making } from '@yunta/core/change/edit';
import { setReserve } from '@yunta/core/edits/set-list';
import { theId } from '@yunta/core/rig/ids';
import { soundsInOrder } from '@yunta/core/rig/rig';
import type { SetList } from '@yunta/core/rig/show';
import { useRig } from '../../shared/rig-context.js';

/** Sounds that somebody may call for in any song: what to hit, and from where most stomps are needed. */
export const Reserve = ({ list, reserve }: { list: SetList; reserve: readonly ReserveSound[] }) => {
  const { rig, edit } = useRig();
  const others = soundsInOrder(rig).filter((s) => !list.reserve?.includes(s.id));
  if (rig.parts.sound.size === 0) return null;
  const put = (id: string | null, isIn: boolean): void => {
    if (!id) return;
    const sound = theId('sound', id);
    const name = rig.parts.sound.get(sound)?.name ?? '';
    edit(making(setReserve(list, sound, isIn)), `${list.name}: ${name} ${isIn ? 'in' : 'out of'} reserve`);
  };
  return (
    <section className="card">
      <h2>In reserve</h2>
      <p className="soft">Sounds that somebody may call for in any song. The stage keeps them one press away.</p>
      {reserve.length > 0 && (
        <ul className="reserve">
          {reserve.map((one) => (
            <li key={one.sound}>
              <strong>{one.name}</strong> <span className="mono">{one.hit || 'nothing to hit'}</span>
              {one.most > 0 && (
                <span className="soft">
                  {one.most === 1 ? 'one stomp from wherever you are' : `at most ${one.most} stomps, from ${one.from}`}
                </span>
              )}
              <Button
                size="compact-xs"
                variant="default"
                aria-label={`Take ${one.name} out of reserve`}
                onClick={() => put(one.sound, false)}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      {others.length > 0 && (
        <Select
          size="xs"
          w={260}
          aria-label="A sound to have in reserve"
          placeholder="have a sound in reserve"
          searchable
          data={others.map((s) => ({ value: s.id, label: s.name }))}
          value={null}
          onChange={(id) => put(id, true)}
          nothingFoundMessage="No such sound"
        />
      )}
    </section>
  );
};
