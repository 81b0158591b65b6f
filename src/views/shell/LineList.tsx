import { useEffect } from 'react';
import { useSession } from '../../session/session.js';
import { chooseLine, useView } from '../../session/view.js';

/** The lines of the property as a column to choose from; always one chosen. */
export function LineList({ note }: { note?: (id: string) => string }) {
  const lines = useSession((s) => s.plan.lines);
  const chosen = useView((v) => v.line);
  const ids = Object.keys(lines);
  const first = ids[0];
  useEffect(() => {
    if ((!chosen || !(chosen in lines)) && first) chooseLine(first);
  }, [chosen, lines, first]);
  return (
    <div
      className="border-rule w-[168px] shrink-0 overflow-y-auto border-r py-2 max-[700px]:max-h-44 max-[700px]:w-full max-[700px]:border-r-0 max-[700px]:border-b"
      role="group"
      aria-label="Lines"
    >
      {ids.map((id) => (
        <button
          key={id}
          aria-current={id === chosen ? 'true' : undefined}
          className={`block w-full cursor-pointer px-3 py-1 text-left ${id === chosen ? 'bg-chosen font-semibold' : 'hover:bg-chosen'}`}
          onClick={() => chooseLine(id)}
        >
          {lines[id]!.name}
          {note && <span className="label block">{note(id)}</span>}
        </button>
      ))}
      {ids.length === 0 && <p className="label px-3">No line yet: draw one on Land.</p>}
    </div>
  );
}
