/** Two loops joined by one bar: the yoke that lets two pull as one. */
export const Mark = () => (
  <svg width="30" height="24" viewBox="0 0 30 24" aria-hidden="true">
    <g fill="none" stroke="var(--ink)" strokeWidth="2.6" strokeLinecap="round">
      <path d="M2 6h26" />
      <path d="M5 6v7a5 5 0 0 0 10 0V6" />
      <path d="M15 6v7a5 5 0 0 0 10 0V6" />
    </g>
    <circle cx="15" cy="6" r="3" fill="var(--accent)" />
  </svg>
);
