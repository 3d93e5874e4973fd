import type { Sound } from '@yunta/core/rig/sound';
import { useAsked } from '../../shared/rig-context.js';

/** What each controller holds for a sound, byte by byte. */
export const Stored = ({ sound }: { sound: Sound }) => {
  const stored = useAsked(['stored', sound.id], (worker) => worker.answers.stored(sound.id));
  return stored?.map((s) => (
    <div key={s.device} className="stored">
      <strong>
        {s.device}, slot {s.slot}
      </strong>{' '}
      <span className="soft">
        {s.typed ? 'as it was typed in' : 'as Yunta writes it'}: {s.contents || 'all loops off'}
      </span>
      <table className="plain">
        <tbody>
          {s.messages.map((m, i) => (
            <tr key={i}>
              <td className="mono bytes">{m.bytes}</td>
              <td>{m.for}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  ));
};
