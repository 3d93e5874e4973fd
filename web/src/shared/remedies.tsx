import { Button } from '@mantine/core';
import type { Finding } from '@yunta/core/checks/check';
import { partOf } from '@yunta/core/rig/rig';
import { useAsked, useRig } from './rig-context.js';

/** Ways out of a finding. Those by program were applied on a copy and proved before they are shown. */
export const Remedies = ({ finding }: { finding: Finding }) => {
  const { rig, edit } = useRig();
  const tried = useAsked(
    ['remedies', finding.fingerprint],
    (worker) => worker.answers.remedies(finding.fingerprint),
    finding.curable,
  );
  if (!finding.curable) return null;
  if (!tried) return <p className="soft">Trying ways to cure it …</p>;
  if (tried.length === 0)
    return <p className="soft">No single change that was tried cures it without spoiling something else.</p>;
  return (
    <ul style={{ listStyle: 'none', padding: 0, margin: 0, display: 'grid', gap: 8 }}>
      {tried.map(({ remedy, bringsBack, changes }) => (
        <li key={remedy.id} style={{ display: 'flex', gap: 10, alignItems: 'center', justifyContent: 'space-between' }}>
          <div>
            <strong>{remedy.label}</strong>
            <div className="soft" style={{ fontSize: 13 }}>
              {[
                remedy.note,
                bringsBack.length
                  ? `then ${bringsBack.length === 1 ? 'comes' : 'come'} back: ${bringsBack.map((id) => partOf(rig, id)?.name).join(', ')}`
                  : undefined,
                remedy.by === 'hand' ? 'by hand' : `changes ${changes} ${changes === 1 ? 'value' : 'values'}`,
              ]
                .filter(Boolean)
                .join(' · ')}
            </div>
          </div>
          {remedy.by === 'program' && (
            <Button
              variant="default"
              size="xs"
              style={{ flex: 'none' }}
              aria-label={`Apply: ${remedy.label}`}
              onClick={() => edit(remedy.edit, remedy.label)}
            >
              Apply
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
};
