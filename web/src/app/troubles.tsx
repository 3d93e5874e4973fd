import { Button, Modal } from '@mantine/core';
import { partOf, type Part } from '@yunta/core/rig/rig';
import { useRig } from './rig-context.js';

const shown = (value: unknown): string => {
  if (value === null) return 'taken away';
  if (value === undefined) return 'nothing';
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > 160 ? `${text.slice(0, 160)}…` : text;
};

/** Two people changed the same thing: both values, and a choice. Nothing vanishes. */
export const Troubles = () => {
  const { state, store, rig } = useRig();
  const trouble = state.session?.troubles[0];
  if (!trouble) return null;
  const nameOf = (id: string) => {
    const part = (partOf(rig, id as Part['id']) ?? trouble.delta.get(id as Part['id'])?.before ?? trouble.delta.get(id as Part['id'])?.after) as Part | undefined;
    return part && 'name' in part ? part.name : id;
  };
  return (
    <Modal opened onClose={() => store.settle(trouble, false)} title={<strong>{trouble.clashes.length ? 'Somebody else changed the same thing' : 'This change could not be kept'}</strong>} size="lg" withCloseButton={false} closeOnClickOutside={false} closeOnEscape={false}>
      <p>You did: {trouble.set.label}.</p>
      {trouble.refusals.map((r, i) => <p key={i} className="broken">{r.wrong} {r.would}</p>)}
      {trouble.clashes.length > 0 && (
        <table className="plain">
          <thead><tr><th>what</th><th>it was</th><th>yours</th><th>theirs</th></tr></thead>
          <tbody>
            {trouble.clashes.map((c) => (
              <tr key={`${c.part}${c.field ?? ''}`}><td>{nameOf(c.part)} <span className="soft">{c.field ?? 'as a whole'}</span></td><td>{shown(c.base)}</td><td>{shown(c.mine)}</td><td>{shown(c.theirs)}</td></tr>
            ))}
          </tbody>
        </table>
      )}
      <div style={{ display: 'flex', gap: 10, marginTop: 16 }}>
        {trouble.clashes.length > 0 && <Button onClick={() => store.settle(trouble, true)}>Keep mine</Button>}
        <Button variant="default" onClick={() => store.settle(trouble, false)}>{trouble.clashes.length ? 'Keep theirs' : 'Let it go'}</Button>
      </div>
    </Modal>
  );
};
