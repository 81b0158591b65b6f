/** The three kinds of finding, each by shape and word as well as colour. */
import type { Finding } from '../../core/report/schema.js';

export const KIND_NAMES: Record<Finding['kind'], string> = {
  stop: 'Stop',
  mend: 'Mend',
  confirm: 'Confirm',
};
export const KIND_COLOURS: Record<Finding['kind'], string> = {
  stop: 'var(--live)',
  mend: 'var(--warn)',
  confirm: 'var(--earth)',
};

/** A bar crossed by a stroke, an open wedge, a dotted ring: our own shapes. */
export function FindingMark({ kind, size = 14 }: { kind: Finding['kind']; size?: number }) {
  const colour = KIND_COLOURS[kind];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      role="img"
      aria-label={KIND_NAMES[kind]}
      className="inline shrink-0"
    >
      {kind === 'stop' && (
        <>
          <rect x="1" y="4.5" width="14" height="7" fill={colour} />
          <path d="M3.5 8h9" stroke="var(--panel)" strokeWidth="2" />
        </>
      )}
      {kind === 'mend' && (
        <path
          d="M2 13.5 8 2.5l6 11"
          fill="none"
          stroke={colour}
          strokeWidth="2.6"
          strokeLinejoin="round"
        />
      )}
      {kind === 'confirm' && (
        <circle
          cx="8"
          cy="8"
          r="5.6"
          fill="none"
          stroke={colour}
          strokeWidth="2"
          strokeDasharray="2.4 2"
        />
      )}
    </svg>
  );
}
