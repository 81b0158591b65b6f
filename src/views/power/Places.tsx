import { useEffect, useMemo, useState } from 'react';
import type { Energiser, Point } from '../../core/plan/schema.js';
import type { FeedPlace } from '../../core/sizing/places.js';
import { doubtsOf, placePatch } from '../../core/sizing/remedies.js';
import { usePower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commitPatch, useSession } from '../../session/session.js';
import { Asked } from '../../ui/parts/Asked.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, type Origin } from '../../ui/parts/Num.js';
import type { Painted } from '../land/shown.js';
import { PULSE } from './origins.js';

const MOST = 12;
const DOUBTS = { earth: 'too near another earth', mains: 'far from the mains' };
const LEAD: Origin = {
  kind: 'measured',
  title: 'Lead-out',
  source: 'From the place to the nearest place of a live line, as drawn',
};

/** Where to put the unit: candidates by the volts at the worst point. */
export function Places({
  unit,
  pressed,
  onPins,
}: {
  unit: Energiser;
  pressed: Point | null;
  onPins: (pins: Painted['pins']) => void;
}) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  const key = `places ${unit.id} ${pressed ? `${pressed.e.toFixed(1)},${pressed.n.toFixed(1)}` : ''}`;
  const answer = usePower(key, (api) => api.places(unit.id, pressed));
  const { value: all, waiting } = answer;
  const [every, setEvery] = useState(false);
  const shown = useMemo(() => {
    const first = every ? (all ?? []) : (all ?? []).slice(0, MOST);
    const own = (all ?? []).filter((p) => p.kind === 'now' || p.kind === 'pressed');
    return [...first, ...own.filter((p) => !first.includes(p))];
  }, [all, every]);
  useEffect(() => {
    onPins(
      shown
        .filter((p) => p.kind !== 'now')
        .map((p) => ({ at: p.at, words: `${shown.indexOf(p) + 1}`, strong: false })),
    );
    return () => onPins([]);
  }, [shown, onPins]);
  if (!all) return waiting ? <Asked of={answer} doing="Trying places" /> : <p role="status">It feeds nothing yet.</p>; // prettier-ignore
  const doubts = (p: FeedPlace) => doubtsOf(p, { energiser: unit, cat }).map((d) => DOUBTS[d]);
  return (
    <div aria-busy={waiting} className={waiting ? 'opacity-60' : ''}>
      <p>
        Best near the middle of the fence, on moist ground, away from children and stock. Numbers
        are on the map; press any place there to try it.
      </p>
      <DataTable
        label="Places for the unit"
        rows={shown}
        keyOf={(p, i) => `${p.name}${i}`}
        rowProps={(p) => ({ className: p.kind === 'now' ? 'bg-chosen font-semibold' : '' })}
        columns={[
          { name: 'no.', n: true, cell: (_, i) => i + 1 },
          {
            name: 'place',
            head: true,
            cell: (p) => (
              <>
                {p.name}
                {doubts(p).map((d) => (
                  <span key={d} className="label text-stop block">
                    {d}
                  </span>
                ))}
              </>
            ),
          },
          {
            name: 'worst',
            n: true,
            from: PULSE,
            cell: (p) => <Num value={p.score.worst.v_V} q="volt" />,
          },
          {
            name: 'on',
            cell: (p) => <span className="label">{lines[p.score.worst.line]?.name}</span>,
          },
          {
            name: 'lead-out',
            n: true,
            from: LEAD,
            cell: (p) => <Num value={p.lead_m} q="length" />,
          },
          { name: 'other earth', n: true, cell: (p) => <Num value={p.earth_m} q="length" /> },
          {
            name: 'put it here',
            quiet: true,
            n: true,
            cell: (p) =>
              p.kind !== 'now' &&
              doubts(p).length === 0 && (
                <Button
                  className="small"
                  aria-label={`Put ${unit.name} at ${p.name}`}
                  onClick={() => commitPatch(`${unit.name} at ${p.name}`, placePatch(unit.id, p))}
                >
                  here
                </Button>
              ),
          },
        ]}
      />
      {all.length > MOST && (
        <Button className="mt-1" onClick={() => setEvery(!every)}>
          {every ? 'The best alone' : `All ${all.length}`}
        </Button>
      )}
    </div>
  );
}
