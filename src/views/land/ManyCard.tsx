import { Lock, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { moveLines } from '../../core/edit/reshape.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { MEASURED, Num } from '../../ui/parts/Num.js';
import { commit, useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { joinWith, removeChosen } from './actions.js';
import { EditMany } from './EditMany.js';
import { Button } from '../../ui/parts/Button.js';

/** Several lines at once. */
export function ManyCard({ ids }: { ids: readonly string[] }) {
  const lines = useSession((s) => s.plan.lines);
  const report = useSession((s) => s.report);
  const known = ids.filter((id) => lines[id]);
  const locked = known.every((id) => lines[id]!.locked);
  return (
    <div className="flex flex-col gap-2">
      <h2 className="heading">{known.length} lines</h2>
      <ul>
        {known.map((id) => (
          <li key={id} className="flex justify-between">
            <span>{lines[id]!.name}</span>
            <Num value={report?.lines[id]?.ground_m} q="length" from={MEASURED} />
          </li>
        ))}
      </ul>
      <EditMany key={known.join()} lines={known.map((id) => lines[id]!)} />
      <MoveBy ids={known} />
      <div className="flex flex-wrap gap-1">
        {known.length === 2 && <Button onClick={() => joinWith(known[1]!)}>Join them</Button>}
        <Button
          aria-pressed={locked}
          onClick={() =>
            commit(locked ? 'unlocked lines' : 'locked lines', (d) => {
              for (const id of known) {
                if (locked) delete d.lines[id]!.locked;
                else d.lines[id]!.locked = true;
              }
            })
          }
        >
          <Lock size={14} aria-hidden /> {locked ? 'Unlock' : 'Lock'}
        </Button>
        <Button
          onClick={() => {
            look({ vertex: null, thing: null });
            removeChosen();
          }}
        >
          <Trash2 size={14} aria-hidden /> All of them
        </Button>
        <Button onClick={() => look({ also: [] })}>Only the first</Button>
      </div>
    </div>
  );
}

/** Whole lines moved by a typed step: the twin of dragging with Shift. */
export function MoveBy({ ids }: { ids: readonly string[] }) {
  const [e, setE] = useState(0);
  const [n, setN] = useState(0);
  const name = useSession((s) => (ids.length === 1 ? s.plan.lines[ids[0]!]?.name : undefined));
  return (
    <div className="flex flex-wrap items-end gap-2">
      <QuantityField
        label="Move east"
        q="tape"
        min={-1e5}
        max={1e5}
        value={e}
        onCommit={setE}
        width="w-16"
      />
      <QuantityField
        label="north"
        q="tape"
        min={-1e5}
        max={1e5}
        value={n}
        onCommit={setN}
        width="w-16"
      />
      <Button
        disabled={e === 0 && n === 0}
        onClick={() =>
          commit(`moved ${name ?? `${ids.length} lines`}`, (d) => moveLines(d, ids, { e, n }))
        }
      >
        Move
      </Button>
    </div>
  );
}
