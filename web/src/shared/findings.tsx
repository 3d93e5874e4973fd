import { Button, Drawer, SegmentedControl, TextInput } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import type { Finding } from '@yunta/core/checks/check';
import { acceptFinding, withdrawAcceptance } from '@yunta/core/edits/findings';
import { theId } from '@yunta/core/rig/ids';
import { useRef, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { newPartId } from '../session/ids.js';
import { useRig } from './rig-context.js';
import { Remedies } from './remedies.js';
import { ROOMS, roomOf } from './rooms.js';
import { SeverityMark } from './severity.js';
import { fits, TextField } from './text-field.js';
import { surely } from '@yunta/core/known/the';
import { keysOf } from '@yunta/core/known/keys';

/** What asks to be seen to; notes only tell. */
export const isPressing = (f: Finding): boolean => !f.accepted && f.severity !== 'note';

const KINDS = {
  pressing: ['To look at', isPressing],
  notes: ['Notes', (f: Finding) => !f.accepted && f.severity === 'note'],
  accepted: ['Accepted', (f: Finding) => f.accepted !== undefined],
} as const;
type Kind = keyof typeof KINDS;

const EMPTY: Readonly<Record<Kind, string>> = {
  pressing: 'Nothing to find fault with in this hook-up.',
  notes: 'No notes on this hook-up.',
  accepted: 'Nothing has been accepted here.',
};

/**
 * All findings, worst first, with reasons, remedies that were tried, and acceptance. Arrow keys walk from one to the
 * next.
 */
export const Findings = ({ opened, close }: { opened: boolean; close: () => void }) => {
  const { view } = useRig();
  const [chosen, choose] = useState<Kind>();
  const [words, setWords] = useState('');
  const list = useRef<HTMLUListElement>(null);
  const all = view?.findings ?? [];
  /** With nothing to see to, what there is to read is shown first. */
  const kind = chosen ?? (all.some(KINDS.pressing[1]) || !all.some(KINDS.notes[1]) ? 'pressing' : 'notes');
  const of = all.filter(KINDS[kind][1]);
  const shown = of.filter((f) => `${f.code} ${f.title} ${f.why}`.toLowerCase().includes(words.trim().toLowerCase()));
  const walk = (e: KeyboardEvent) => {
    if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
    const cards = [...(list.current?.querySelectorAll<HTMLElement>(':scope > *') ?? [])];
    const at = cards.findIndex((c) => c === document.activeElement);
    if (at < 0 && e.target instanceof HTMLInputElement && e.key === 'ArrowUp') return;
    e.preventDefault();
    cards[Math.max(0, Math.min(cards.length - 1, at + (e.key === 'ArrowDown' ? 1 : -1)))]?.focus();
  };
  return (
    <Drawer opened={opened} onClose={close} position="right" size="lg" title={<strong>Findings</strong>}>
      <div onKeyDown={walk}>
        <div style={{ display: 'flex', gap: 10, marginBottom: 12, flexWrap: 'wrap' }}>
          <SegmentedControl
            aria-label="Which findings"
            value={kind}
            onChange={(k) => choose(k)}
            data={keysOf(KINDS).map((k) => ({
              value: k,
              label: `${KINDS[k][0]} (${all.filter(KINDS[k][1]).length})`,
            }))}
          />
          <TextInput
            style={{ flex: 1, minWidth: 160 }}
            aria-label="Find a finding"
            placeholder="a box, a sound, a word"
            value={words}
            onChange={(e) => setWords(e.currentTarget.value)}
          />
        </div>
        {view?.faults.map((f) => (
          <p key={f.code} className="broken">
            The check {f.code} failed: {f.message}. The others were made.
          </p>
        ))}
        {view && shown.length === 0 && (
          <p>{of.length ? `None of the ${of.length} says “${words.trim()}”.` : EMPTY[kind]}</p>
        )}
        <ul ref={list} style={{ listStyle: 'none', padding: 0, margin: 0, display: 'grid', gap: 12 }}>
          {shown.map((f) =>
            f.accepted ? (
              <AcceptedFinding key={f.fingerprint} finding={f} />
            ) : (
              <OneFinding key={f.fingerprint} finding={f} close={close} />
            ),
          )}
        </ul>
      </div>
    </Drawer>
  );
};

const OneFinding = ({ finding, close }: { finding: Finding; close: () => void }) => {
  const { edit, hookup, point } = useRig();
  const [reason, setReason] = useState('');
  const accept = () => {
    if (hookup && reason.trim())
      edit(
        acceptFinding(newPartId('acceptance'), hookup.id, finding.code, finding.fingerprint, reason.trim()),
        `Accept: ${finding.title}`,
      );
  };
  const room = ROOMS.find((r) => r.path === roomOf(finding.code));
  return (
    <li className="card" tabIndex={-1}>
      <SeverityMark severity={finding.severity} /> <strong>{finding.title}</strong>{' '}
      <span className="soft mono" style={{ whiteSpace: 'nowrap' }}>
        {finding.code}
      </span>
      <p style={{ margin: '6px 0' }}>{finding.why}</p>
      <Remedies finding={finding} />
      <form
        onSubmit={(e) => {
          e.preventDefault();
          accept();
        }}
        style={{ display: 'flex', gap: 8, marginTop: 8, alignItems: 'center' }}
      >
        <TextField
          most={LONGEST.reason}
          size="xs"
          style={{ flex: 1 }}
          aria-label={`Why ${finding.title} is accepted`}
          placeholder="We like it so, because …"
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        <Button type="submit" size="xs" variant="default" disabled={!fits(reason, LONGEST.reason)}>
          Accept
        </Button>
        {room && (
          <Link
            to={room.path}
            onClick={() => {
              point(finding.evidence);
              close();
            }}
            style={{ color: 'inherit', whiteSpace: 'nowrap' }}
          >
            To {room.name}
          </Link>
        )}
      </form>
    </li>
  );
};

const AcceptedFinding = ({ finding }: { finding: Finding }) => {
  const { edit } = useRig();
  return (
    <li className="card" tabIndex={-1}>
      <strong>{finding.title}</strong>{' '}
      <span className="soft mono" style={{ whiteSpace: 'nowrap' }}>
        {finding.code}
      </span>
      <p style={{ margin: '6px 0' }}>{finding.why}</p>
      <p className="soft" style={{ margin: '6px 0' }}>
        Accepted: {surely(finding.accepted).reason}
      </p>
      <Button
        size="xs"
        variant="default"
        onClick={() =>
          edit(withdrawAcceptance(theId('acceptance', surely(finding.accepted).id)), `Take back: ${finding.title}`)
        }
      >
        Take back
      </Button>
    </li>
  );
};
