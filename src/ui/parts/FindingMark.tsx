import { KIND_COLOURS, KIND_NAMES, KIND_SHAPES, type Kind } from './findingShapes.js';

/** The mark of a kind of finding. @param silent where its name stands beside it */
export function FindingMark({
  kind,
  size = 14,
  silent = false,
}: {
  kind: Kind;
  size?: number;
  silent?: boolean;
}) {
  const of = (which: 'own' | 'paper' | undefined) =>
    which === undefined ? 'none' : which === 'own' ? KIND_COLOURS[kind] : 'var(--panel)';
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      {...(silent ? { 'aria-hidden': true } : { role: 'img', 'aria-label': KIND_NAMES[kind] })}
      className="inline shrink-0"
    >
      {KIND_SHAPES[kind].map((p) => (
        <path
          key={p.d}
          d={p.d}
          fill={of(p.fill)}
          stroke={of(p.ink)}
          strokeWidth={p.width ?? 0}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
