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
  const colour = (name: string | undefined) =>
    name === undefined ? 'none' : name === 'own' ? KIND_COLOURS[kind] : 'var(--panel)';
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      {...(silent ? { 'aria-hidden': true } : { role: 'img', 'aria-label': KIND_NAMES[kind] })}
      className="inline shrink-0"
    >
      {KIND_SHAPES[kind].strokes.map((p) => (
        <path
          key={p.d}
          d={p.d}
          fill={colour(p.fill)}
          stroke={colour(p.ink)}
          strokeWidth={p.width ?? 0}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
