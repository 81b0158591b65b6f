import { Printer } from 'lucide-react';
import { useState } from 'react';
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { useSession } from '../../session/session.js';
import { chooseLine, look } from '../../session/view.js';
import { MEASURED, Num, WhereFrom } from '../../ui/parts/Num.js';
import { AREA } from './areaOrigin.js';
import { Files } from './Files.js';
import { Button } from '../../ui/parts/Button.js';
import { LiveWalk } from './LiveWalk.js';

/** The whole property, when nothing is chosen. */
export function Overview() {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const id = useSession((s) => s.id);
  const [several, setSeveral] = useState<readonly string[] | null>(null);
  const row =
    'hover:bg-chosen flex w-full cursor-pointer justify-between gap-2 px-1 py-0.5 text-left';
  return (
    <>
      <h2 className="heading">{plan.name}</h2>
      {plan.invented && <p className="label">Everything in this property is made up.</p>}
      <p className="label mt-2 flex justify-between">
        <span>line</span>
        <span>
          over ground
          <WhereFrom origin={MEASURED} shown="the length of each line" />
        </span>
      </p>
      <ul aria-label="Lines">
        {Object.values(plan.lines).map((l) => (
          <li key={l.id} className="flex items-center">
            {several && (
              <input
                type="checkbox"
                className="size-4 shrink-0"
                aria-label={`Choose ${l.name}`}
                checked={several.includes(l.id)}
                onChange={(e) =>
                  setSeveral(
                    e.target.checked ? [...several, l.id] : several.filter((x) => x !== l.id),
                  )
                }
              />
            )}
            <button className={row} onClick={() => chooseLine(l.id)}>
              <span>{l.name}</span>
              <Num value={report?.lines[l.id]?.ground_m} q="length" />
            </button>
          </li>
        ))}
        {Object.keys(plan.lines).length === 0 && (
          <li className="label">No line yet: draw one, or bring a walked one in below.</li>
        )}
      </ul>
      {Object.keys(plan.lines).length > 1 && (
        <div className="my-1 flex flex-wrap gap-1">
          {several ? (
            <>
              <Button
                strong
                disabled={several.length < 2}
                onClick={() => look({ line: several[0]!, also: several.slice(1), vertex: null })}
              >
                Change {several.length} lines
              </Button>
              <Button onClick={() => setSeveral(Object.keys(plan.lines))}>All</Button>
              <Button onClick={() => setSeveral(null)}>None</Button>
            </>
          ) : (
            <Button onClick={() => setSeveral([])}>Choose several</Button>
          )}
        </div>
      )}
      {report && (
        <p className="border-ink mt-1 flex justify-between border-t pt-1 font-semibold">
          <span>All lines over ground</span>
          <Num
            value={report.totals.ground_m}
            q="far"
            from={{
              kind: 'measured',
              title: 'Length over ground of all lines',
              formula: 'sum of sqrt(ds² + dz²)',
              source: 'Ground along the lines, at every change of slope',
            }}
          />
        </p>
      )}
      {report && report.paddocks.length > 0 && (
        <>
          <p className="label mt-3 flex justify-between">
            <span>paddock</span>
            <span>
              area
              <WhereFrom origin={AREA} shown="the area of each paddock" />
            </span>
          </p>
          <ul aria-label="Paddocks">
            {report.paddocks.map((p) => (
              <li key={`${p.e},${p.n}`}>
                <button
                  className={row}
                  onClick={() => {
                    chooseLine(null);
                    look({ thing: { kind: 'paddock', id: `${p.e.toFixed(2)},${p.n.toFixed(2)}` } });
                  }}
                >
                  <span>{p.name}</span>
                  <Num value={p.area_m2} q="area" />
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {Object.keys(plan.things ?? {}).length > 0 && (
        <>
          <p className="label mt-3">on the land</p>
          <ul aria-label="Things on the land">
            {Object.values(plan.things ?? {}).map((t) => (
              <li key={t.id}>
                <button
                  className={row}
                  onClick={() => {
                    chooseLine(null);
                    look({ thing: { kind: 'thing', id: t.id } });
                  }}
                >
                  <span>{t.name}</span>
                  <span className="label">{THING_NAMES[t.kind].split(',')[0]}</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <a className="button mt-3" href={`/print/${id}`}>
        <Printer size={14} aria-hidden /> Print the map
      </a>
      <LiveWalk />
      <Files />
    </>
  );
}
