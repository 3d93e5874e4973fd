/** A box as the tag it is on every drawing, by itself: for where boxes are chosen. */
export const TagSign = ({ code }: { code: string }) => (
  <svg className="tag-sign" width={64} height={36} viewBox="0 0 64 36" aria-hidden="true">
    <path d="M2 2h51l9 16l-9 16h-51z" />
    <text x={28} y={18.5}>
      {code}
    </text>
  </svg>
);
