import { Printer } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { Gate, Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { THING_NAMES } from '../../core/edit/landEdits.js';
import { useSession } from '../../session/session.js';
import { chooseLine, look, type Chosen } from '../../session/view.js';
import { useWhere } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { FindField, sifts } from '../../ui/parts/FindField.js';
import { MEASURED, Num, WhereFrom, type Origin } from '../../ui/parts/Num.js';
import { useRoving } from '../../ui/parts/roving.js';
import { MANY } from '../shell/LineList.js';
import { AREA } from './areaOrigin.js';
import { Files } from './Files.js';
import { LiveWalk } from './LiveWalk.js';
import { removeChosen } from './actions.js';

/** The whole property, when nothing is chosen: everything on it, to be chosen without the map. */
export function Overview() {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const id = useSession((s) => s.id);
  const [several, setSeveral] = useState<readonly string[] | null>(null);
  const [asked, setAsked] = useState('');
  const fits = (name: string) => sifts(asked, name);
  const lines = Object.values(plan.lines).filter((l) => fits(l.name));
  const choose = (kind: Chosen['kind'], thing: string) => {
    chooseLine(null);
    look({ thing: { kind, id: thing } });
  };
  const many = Object.keys(plan.lines).length + Object.keys(plan.gates).length > MANY;
  return (
    <>
      <h2 className="heading">
        <bdi>{plan.name}</bdi>
      </h2>
      {plan.invented && <p className="label">Everything in this property is made up.</p>}
      {many && (
        <FindField
          className="mt-1 w-full"
          label="Find on the property"
          hint="find a line, gate, paddock …"
          value={asked}
          onChange={setAsked}
        />
      )}
      <Listed label="Lines" name="line" end="over ground" from={MEASURED}>
        {lines.map((l) => (
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
            <Row name={l.name} onPress={() => chooseLine(l.id)} removable>
              <Num value={report?.lines[l.id]?.ground_m} q="length" />
            </Row>
          </li>
        ))}
        {Object.keys(plan.lines).length === 0 && (
          <li className="label">No line yet: draw one, or bring a walked one in below.</li>
        )}
      </Listed>
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
      <Listed label="Gates" name="gate">
        {Object.values(plan.gates)
          .filter((g) => fits(g.name))
          .map((g) => (
            <li key={g.id}>
              <Row name={g.name} onPress={() => choose('gate', g.id)} removable>
                <GatePlace gate={g} />
              </Row>
            </li>
          ))}
      </Listed>
      <Listed label="Energisers" name="energiser">
        {Object.values(plan.energisers)
          .filter((e) => fits(e.name))
          .map((e) => (
            <li key={e.id}>
              <Row name={e.name} onPress={() => choose('energiser', e.id)} removable>
                <span className="label">
                  {e.line ? `feeds ${plan.lines[e.line]?.name ?? ''}` : 'feeds no line'}
                </span>
              </Row>
            </li>
          ))}
      </Listed>
      <Listed label="Paddocks" name="paddock" end="area" from={AREA}>
        {(report?.paddocks ?? [])
          .filter((p) => fits(p.name))
          .map((p) => (
            <li key={`${p.e},${p.n}`}>
              <Row
                name={p.name}
                onPress={() => choose('paddock', `${p.e.toFixed(2)},${p.n.toFixed(2)}`)}
              >
                <Num value={p.area_m2} q="area" />
              </Row>
            </li>
          ))}
      </Listed>
      <Listed label="Things on the land" name="on the land">
        {Object.values(plan.things ?? {})
          .filter((t) => fits(t.name))
          .map((t) => (
            <li key={t.id}>
              <Row name={t.name} onPress={() => choose('thing', t.id)} removable>
                <span className="label">{THING_NAMES[t.kind].split(',')[0]}</span>
              </Row>
            </li>
          ))}
      </Listed>
      <a className="button mt-3" href={`/print/${id}`}>
        <Printer size={14} aria-hidden /> Print the map
      </a>
      <LiveWalk />
      <Files />
    </>
  );
}

/** One list under its heading, one stop of the Tab key; nothing where it is empty. */
function Listed(p: {
  label: string;
  name: string;
  end?: string;
  from?: Origin;
  children: ReactNode[] | ReactNode;
}) {
  const roving = useRoving<HTMLUListElement>('button, input');
  const empty = Array.isArray(p.children) && p.children.flat().filter(Boolean).length === 0;
  if (empty) return null;
  return (
    <>
      <p className="label mt-3 flex justify-between">
        <span>{p.name}</span>
        {p.end && (
          <span>
            {p.end}
            {p.from && <WhereFrom origin={p.from} shown={`${p.end} of each ${p.name}`} />}
          </span>
        )}
      </p>
      <ul aria-label={p.label} {...roving}>
        {p.children}
      </ul>
    </>
  );
}

/** One thing to choose; Delete takes it away, with the way back. */
function Row(p: { name: string; onPress: () => void; removable?: boolean; children: ReactNode }) {
  return (
    <button
      className="line-row hover:bg-hover flex w-full cursor-pointer items-center justify-between gap-2 px-1 py-0.5 text-left"
      onClick={p.onPress}
      onKeyDown={(e) => {
        if (e.key !== 'Delete' || !p.removable) return;
        e.preventDefault();
        e.stopPropagation();
        p.onPress();
        removeChosen();
      }}
    >
      <bdi className="min-w-0 truncate">{p.name}</bdi>
      <span className="shrink-0">{p.children}</span>
    </button>
  );
}

function GatePlace({ gate }: { gate: Gate }) {
  const line = useSession((s) => s.plan.lines[gate.line]);
  const report = useSession((s) => s.report?.lines[gate.line]);
  if (!line || !report) return null;
  return <At gate={gate} line={line} report={report} />;
}

function At({ gate, line, report }: { gate: Gate; line: Line; report: LineReport }) {
  const where = useWhere(line, report);
  return (
    <span className="label">
      <bdi>{line.name}</bdi>, {where(gate.at_m).split(' (')[0]}
    </span>
  );
}
