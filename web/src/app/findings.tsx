import { Button, Drawer, TextInput } from '@mantine/core';
import type { Finding } from '@yunta/core/checks/check';
import { acceptFinding, withdrawAcceptance } from '@yunta/core/edits/findings';
import type { Id } from '@yunta/core/rig/ids';
import { useState } from 'react';
import { newPartId } from '../session/ids.js';
import { useRig } from './rig-context.js';
import { Remedies } from './remedies.js';
import { SeverityMark } from './severity.js';

/** All findings, worst first, with reasons, remedies that were tried, and acceptance. */
export const Findings = ({ opened, close }: { opened: boolean; close: () => void }) => {
  const { view } = useRig();
  const open = view?.findings.filter((f) => !f.accepted) ?? [];
  const accepted = view?.findings.filter((f) => f.accepted) ?? [];
  return (
    <Drawer opened={opened} onClose={close} position="right" size="lg" title={<strong>Findings</strong>}>
      {view && open.length === 0 && <p>Nothing to find fault with in this hook-up.</p>}
      {view?.faults.map((f) => <p key={f.code} className="broken">The check {f.code} failed: {f.message}. The others were made.</p>)}
      <ul style={{ listStyle: 'none', padding: 0, margin: 0, display: 'grid', gap: 12 }}>
        {open.map((f) => <OneFinding key={f.fingerprint} finding={f} />)}
      </ul>
      {accepted.length > 0 && <h2 style={{ marginTop: 20 }}>Accepted</h2>}
      <ul style={{ listStyle: 'none', padding: 0, margin: 0, display: 'grid', gap: 12 }}>
        {accepted.map((f) => <AcceptedFinding key={f.fingerprint} finding={f} />)}
      </ul>
    </Drawer>
  );
};

const OneFinding = ({ finding }: { finding: Finding }) => {
  const { edit, hookup } = useRig();
  const [reason, setReason] = useState('');
  const accept = () => {
    if (hookup && reason.trim()) edit(acceptFinding(newPartId('acceptance'), hookup.id, finding.code, finding.fingerprint, reason.trim()), `Accept: ${finding.title}`);
  };
  return (
    <li className="card">
      <SeverityMark severity={finding.severity} /> <strong>{finding.title}</strong> <span className="soft mono">{finding.code}</span>
      <p style={{ margin: '6px 0' }}>{finding.why}</p>
      <Remedies finding={finding} />
      <form onSubmit={(e) => { e.preventDefault(); accept(); }} style={{ display: 'flex', gap: 8, marginTop: 8 }}>
        <TextInput size="xs" style={{ flex: 1 }} aria-label={`Why ${finding.title} is accepted`} placeholder="We like it so, because …" maxLength={2000} value={reason} onChange={(e) => setReason(e.currentTarget.value)} />
        <Button type="submit" size="xs" variant="default" disabled={!reason.trim()}>Accept</Button>
      </form>
    </li>
  );
};

const AcceptedFinding = ({ finding }: { finding: Finding }) => {
  const { edit } = useRig();
  return (
    <li className="card">
      <strong>{finding.title}</strong> <span className="soft mono">{finding.code}</span>
      <p style={{ margin: '6px 0' }}>{finding.why}</p>
      <p className="soft" style={{ margin: '6px 0' }}>Accepted: {finding.accepted!.reason}</p>
      <Button size="xs" variant="default" onClick={() => edit(withdrawAcceptance(finding.accepted!.id as Id<'acceptance'>), `Take back: ${finding.title}`)}>Take back</Button>
    </li>
  );
};
