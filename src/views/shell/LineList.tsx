import { useState } from 'react';
import { useSession } from '../../session/session.js';
import { chooseLine, look, useView } from '../../session/view.js';
import { FindField, sifts } from '../../ui/parts/FindField.js';
import { useRoving } from '../../ui/parts/roving.js';

/** From so many on, a list can be sifted. */
export const MANY = 8;

/** The lines of the property as a column to choose from. */
export function LineList({ note }: { note?: (id: string) => string }) {
  const lines = useSession((s) => s.plan.lines);
  const chosen = useView((v) => v.line);
  const [asked, setAsked] = useState('');
  const roving = useRoving<HTMLDivElement>('button');
  const all = Object.values(lines);
  const shown = all.filter((l) => sifts(asked, l.name));
  return (
    <div className="bg-panel min-h-full">
      {all.length > MANY && (
        <div className="bg-panel sticky top-0 z-[1] p-1.5 pr-10">
          <FindField label="Find a line" hint="find a line" value={asked} onChange={setAsked} />
        </div>
      )}
      <div {...roving} role="group" aria-label="Lines" className="py-1">
        {shown.map(({ id, name }) => (
          <button
            key={id}
            aria-current={id === chosen ? 'true' : undefined}
            className={`line-row block w-full cursor-pointer px-3 py-1 text-left ${id === chosen ? 'bg-chosen font-semibold' : 'hover:bg-hover'}`}
            onClick={() => {
              chooseLine(id);
              // In the hand the list gives way to what was chosen.
              look({ sheetSize: 'peek' });
            }}
          >
            <bdi>{name}</bdi>
            {note && <span className="label block">{note(id)}</span>}
          </button>
        ))}
      </div>
      {all.length === 0 && <p className="label px-3 py-2">No line yet: draw one on Land.</p>}
      {all.length > 0 && shown.length === 0 && <p className="label px-3">No line of that name.</p>}
    </div>
  );
}
