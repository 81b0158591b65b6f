import { Strokes } from './Strokes.js';
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
  const colour = (name: string) => (name === 'own' ? KIND_COLOURS[kind] : 'var(--panel)');
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      {...(silent ? { 'aria-hidden': true } : { role: 'img', 'aria-label': KIND_NAMES[kind] })}
      className="inline shrink-0"
    >
      <Strokes drawn={KIND_SHAPES[kind]} colour={colour} />
    </svg>
  );
}
