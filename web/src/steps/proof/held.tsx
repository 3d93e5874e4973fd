import { someOf } from '@yunta/core/known/some-of';
import type { Id } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { useAsked, useRig } from '../../shared/rig-context.js';

const MOST = 4;

/** What a foot holds until it lets go: no sound takes it back, and here it is told which let it ring on. */
export const Held = () => {
  const { rig } = useRig();
  const latched = useAsked(['latched'], (worker) => worker.answers.latched());
  if (!latched?.length) return null;
  const names = (ids: readonly Id<'sound'>[]) =>
    someOf(
      ids.map((id) => partOf(rig, id)?.name ?? ''),
      MOST,
    );
  return (
    <div className="card">
      <h2>Held until let go</h2>
      <p className="soft">No sound takes these back. Once held they go on into the next sound, and the next song.</p>
      <ul>
        {latched.map(({ control, text, rings, cut }) => (
          <li key={control}>
            <strong>{text}</strong>{' '}
            {rings.length === 0
              ? 'is heard in no sound.'
              : cut.length === 0
                ? 'rings on in every sound.'
                : `rings on in ${names(rings)}; its way out is closed in ${names(cut)}, and it is heard again after it.`}
          </li>
        ))}
      </ul>
    </div>
  );
};
