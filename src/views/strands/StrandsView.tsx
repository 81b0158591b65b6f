import type { Line } from '../../core/plan/schema.js';
import { say } from '../../core/base/units.js';
import { Part } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../ui/session/catalogue.js';
import { commit, useSession } from '../../ui/session/session.js';
import { useView } from '../../ui/session/view.js';
import { LineList } from '../shell/LineList.js';
import { Panel } from './Panel.js';
import { Proposed } from './Proposed.js';
import { StrandTable } from './StrandTable.js';

/** Which make-up holds this stock: who stands where, what is proposed and why, strand by strand. */
export function StrandsView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const lines = useSession((s) => s.plan.lines);
  const count = (lineId: string) => `${lines[lineId]!.strands.length} strands`;
  return (
    <div className="flex h-full max-[700px]:h-auto max-[700px]:flex-col">
      <LineList note={count} />
      <div className="min-w-0 flex-1 overflow-auto p-4">{line && <LineStrands line={line} />}</div>
    </div>
  );
}

function LineStrands({ line }: { line: Line }) {
  const report = useSession((s) => s.report?.lines[line.id]);
  return (
    <>
      <Part title={`Who stands at ${line.name}`}>
        <Stock line={line} />
      </Part>
      {report?.proposal && report.requirement && <Proposed line={line} report={report} />}
      <div className="grid gap-x-8 min-[1000px]:grid-cols-[minmax(230px,1fr)_auto]">
        <Part title="The panel, to scale">
          <Panel line={line} bay_m={report?.stretches[0]?.bay_m ?? 4} />
        </Part>
        <Part title="Strands">
          <StrandTable line={line} />
          {report && <Gap effective={report.effectiveGap_m} />}
        </Part>
      </div>
    </>
  );
}

const GAP_ORIGIN: Origin = {
  kind: 'formula',
  title: 'Widest gap with what a push opens',
  formula: 'widest gap + 2 d, where F = 4 d (T + EA ΔL/L) / L at mid-bay',
  source:
    'Taut wire pushed aside at mid-bay with its stretch, on the hottest day and in the longest bay',
  inputs: [{ name: 'Push', path: 'defaults.wire.pushForce.value', quantity: 'force' }],
};

function Gap({ effective }: { effective: number | null }) {
  if (effective === null) return null;
  return (
    <p className="mt-2 max-w-[400px]">
      An animal that pushes at mid-bay opens the widest gap to{' '}
      <Num value={effective} q="height" from={GAP_ORIGIN} className="font-semibold" /> on the
      hottest day: closer posts or more tension hold it smaller.
    </p>
  );
}

/** Stock on each side and what is kept out. Left and right as one walks from the first vertex. */
function Stock({ line }: { line: Line }) {
  const cat = useCatalogue();
  const units = useUnits();
  const stock = Object.entries(cat.profiles).filter(
    ([id, p]) => p.role === 'stock' && id !== 'cattle-boundary',
  );
  const predators = Object.entries(cat.profiles).filter(([, p]) => p.role === 'predator');
  const toggle = (list: 'left' | 'right' | 'keepOut', profile: string, on: boolean) =>
    commit(`stock at ${line.name}`, (d) => {
      const l = d.lines[line.id]!;
      l[list] = on ? [...l[list], profile] : l[list].filter((x) => x !== profile);
    });
  const column = (title: string, list: 'left' | 'right' | 'keepOut', options: typeof stock) => (
    <fieldset>
      <legend className="label mb-1">{title}</legend>
      {options.map(([id, p]) => (
        <label
          key={id}
          className="flex items-center gap-2 py-0.5"
          title={`${p.why} Aim ${say(p.aim_V, 'volt', units)}.`}
        >
          <input
            type="checkbox"
            className="size-4"
            checked={line[list].includes(id)}
            onChange={(event) => toggle(list, id, event.target.checked)}
          />
          {p.name}
        </label>
      ))}
    </fieldset>
  );
  return (
    <div className="grid grid-cols-3 gap-4 max-[700px]:grid-cols-1">
      {column('to the left, walking it', 'left', stock)}
      {column('to the right, walking it', 'right', stock)}
      <div>
        {column('kept out', 'keepOut', predators)}
        <label className="mt-2 flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            className="size-4"
            checked={line.boundary}
            onChange={(event) =>
              commit(`boundary of ${line.name}`, (d) => {
                d.lines[line.id]!.boundary = event.target.checked;
              })
            }
          />
          boundary of the property
        </label>
      </div>
    </div>
  );
}
