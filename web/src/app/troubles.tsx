import { Button, Modal } from '@mantine/core';
import type { AnyId } from '@yunta/core/rig/ids';
import type { Part } from '@yunta/core/rig/rig';
import { sayClash } from '@yunta/core/sheets/clash-words';
import { useRig } from './rig-context.js';

/** Two people changed the same thing: both values, and a choice. Nothing vanishes: what is not settled is asked again after a reload. */
export const Troubles = () => {
  const { state, store, rig } = useRig();
  const trouble = state.session?.troubles[0];
  if (!trouble) return null;
  const known = (id: AnyId): Part | undefined => trouble.delta.get(id)?.before ?? trouble.delta.get(id)?.after ?? undefined;
  return (
    <Modal opened onClose={() => store.settle(trouble, false)} title={<strong>{trouble.clashes.length ? 'Somebody else changed the same thing' : 'This change could not be kept'}</strong>} size="lg" withCloseButton={false} closeOnClickOutside={false} closeOnEscape={false}>
      {/* Whoever types on while it comes up must not choose by that. */}
      <p tabIndex={-1} data-autofocus style={{ outline: 'none' }}>You did: {trouble.set.label}.</p>
      {trouble.refusals.map((r, i) => <p key={i} className="broken">{r.wrong} {r.would}</p>)}
      {trouble.clashes.length > 0 && (
        <table className="plain">
          <thead><tr><th>what</th><th>it was</th><th>yours</th><th>theirs</th></tr></thead>
          <tbody>
            {trouble.clashes.map((c) => sayClash(rig, c, known(c.part))).map(({ what, was, mine, theirs }) => (
              <tr key={what}><td>{what}</td><td>{was}</td><td><strong>{mine}</strong></td><td>{theirs}</td></tr>
            ))}
          </tbody>
        </table>
      )}
      {state.complaint && <p role="alert" className="broken" style={{ margin: '12px 0 0' }}>{state.complaint}</p>}
      <div style={{ display: 'flex', gap: 10, marginTop: 16 }}>
        {trouble.clashes.length > 0 && <Button onClick={() => store.settle(trouble, true)}>Keep mine</Button>}
        <Button variant="default" onClick={() => store.settle(trouble, false)}>{trouble.clashes.length ? 'Keep theirs' : 'Let it go'}</Button>
      </div>
    </Modal>
  );
};
