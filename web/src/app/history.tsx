import { Button, Drawer } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../session/api.js';
import { newId } from '../session/ids.js';
import { useRig } from './rig-context.js';

/** Every change of the rig, the newest first; any revision can be brought back, as a change of its own. */
export const History = ({ opened, close }: { opened: boolean; close: () => void }) => {
  const { rigId, state } = useRig();
  const revision = state.session!.confirmed.revision;
  const { data, isError } = useQuery({ queryKey: ['history', rigId, revision], queryFn: () => api.history(rigId), enabled: opened });
  return (
    <Drawer opened={opened} onClose={close} position="right" size="lg" title={<strong>History</strong>}>
      <p className="soft">Going back is a change of its own: nothing in between is lost. What was ticked off as typed in stays ticked, because the boxes still hold it.</p>
      {isError && <p className="broken">The server does not answer; the history is with it. Your own changes are kept here.</p>}
      <table className="plain">
        <thead><tr><th>revision</th><th>when</th><th>what</th><th><span className="visually-hidden">bring back</span></th></tr></thead>
        <tbody>
          {data?.map((entry) => (
            <tr key={entry.revision}>
              <td className="mono">{entry.revision}</td>
              <td style={{ whiteSpace: 'nowrap' }}>{new Date(entry.when).toLocaleString()}</td>
              <td>{entry.label} <span className="soft">{entry.parts.length} {entry.parts.length === 1 ? 'part' : 'parts'}</span></td>
              <td>{entry.revision !== revision && <Button size="compact-xs" variant="default" onClick={() => void api.restore(rigId, entry.revision, newId())}>Back to here</Button>}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Drawer>
  );
};
