import type { Severity } from '@yunta/core/checks/check';

const SHAPES: Readonly<Record<Severity, string>> = { danger: '▲', broken: '◆', doubt: '●', note: '○' };

/** A severity by shape and word; colour comes on top. */
export const SeverityMark = ({ severity }: { severity: Severity }) => (
  <span style={{ color: severity === 'note' ? 'var(--soft)' : 'var(--accent)', fontWeight: 700, whiteSpace: 'nowrap' }}>
    <span aria-hidden="true">{SHAPES[severity]}</span> {severity}
  </span>
);
