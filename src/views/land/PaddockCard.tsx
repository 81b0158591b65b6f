import { ArrowLeft } from 'lucide-react';
import { setPaddock } from '../../core/edit/landEdits.js';
import type { Paddock } from '../../core/plan/schema.js';
import { paddockAt } from '../../core/land/paddocks.js';
import type { PaddockReport } from '../../core/report/schema.js';
import { QuantityField, Select, NameField } from '../../ui/parts/controls.js';
import { MEASURED, Num, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { chooseLine, look } from '../../session/view.js';
import { Divide } from './Divide.js';
import { AREA } from './areaOrigin.js';
import { Button } from '../../ui/parts/Button.js';

export const USES: readonly (readonly [Paddock['use'], string])[] = [
  ['grazing', 'grazing'],
  ['lane', 'laneway'],
  ['hay', 'hay'],
  ['crop', 'crop'],
  ['wood', 'wood'],
  ['yard', 'yard'],
];

/** A face of the network: its name, use, stock, what bounds it, and a fence through it. */
export function PaddockCard({ at }: { at: string }) {
  const paddocks = useSession((s) => s.report?.paddocks) ?? [];
  const [e, n] = at.split(',').map(Number) as [number, number];
  const paddock = paddockAt(paddocks, { e, n });
  if (!paddock)
    return <p className="label">This paddock is open now: close its lines and press it again.</p>;
  return <Card paddock={paddock} />;
}

const PER_AREA: Origin = {
  kind: 'formula',
  title: 'Head per area',
  formula: 'head ÷ area in plan',
  source: 'What the land carries depends on grass and season: it is not judged here',
};

function Card({ paddock }: { paddock: PaddockReport }) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  const set = (words: string, change: Partial<Omit<Paddock, 'id'>>) =>
    commit(`${words} of ${paddock.name}`, (d) => void setPaddock(d, paddock, change));
  const head = Object.values(paddock.stock).reduce((a, b) => a + b, 0);
  return (
    <div className="flex flex-col gap-2" data-paddock>
      <div className="flex items-center gap-1">
        <Button className="!px-1.5" aria-label="Back" onClick={() => look({ thing: null })}>
          <ArrowLeft size={15} aria-hidden />
        </Button>
        <NameField
          name={paddock.name}
          label="Name of the paddock"
          onCommit={(name) => set('name', { name })}
        />
      </div>
      <dl className="grid grid-cols-[1fr_auto] gap-x-3">
        <dt className="label">area in plan</dt>
        <dd className="text-right">
          <Num value={paddock.area_m2} q="area" from={AREA} />
        </dd>
        <dt className="label">round it</dt>
        <dd className="text-right">
          <Num value={paddock.perimeter_m} q="length" from={MEASURED} />
        </dd>
        {head > 0 && (
          <>
            <dt className="label">head</dt>
            <dd className="text-right">
              <Num value={head / paddock.area_m2} q="perArea" from={PER_AREA} />
            </dd>
          </>
        )}
        <dt className="label">gates, water points</dt>
        <dd className="text-right">
          {paddock.gates.length}, {paddock.water.length}
        </dd>
      </dl>
      <Select
        label="Use"
        value={paddock.use as Paddock['use']}
        options={USES}
        onChange={(use) => set('use', { use })}
      />
      <fieldset>
        <legend className="font-semibold">Stock</legend>
        {Object.entries(paddock.stock).map(([id, count]) => (
          <QuantityField
            key={id}
            label={cat.profiles[id]?.name ?? id}
            q="count"
            at="paddocks/*/stock/*"
            width="w-16"
            value={count}
            onCommit={(k) => {
              const stock = { ...paddock.stock, [id]: k };
              if (k === 0) delete stock[id];
              set('stock', { stock });
            }}
          />
        ))}
        <select
          className="field mt-1"
          aria-label="Put stock in"
          value=""
          onChange={(e) =>
            e.target.value && set('stock', { stock: { ...paddock.stock, [e.target.value]: 10 } })
          }
        >
          <option value="">put stock in …</option>
          {Object.entries(cat.profiles)
            .filter(([id, p]) => p.role === 'stock' && !(id in paddock.stock))
            .map(([id, p]) => (
              <option key={id} value={id}>
                {p.name}
              </option>
            ))}
        </select>
      </fieldset>
      <div>
        <p className="label">bounded by</p>
        <ul>
          {paddock.edges.map((edge, i) => (
            <li key={i}>
              <button
                className="hover:bg-hover flex w-full cursor-pointer justify-between gap-2 text-left"
                onClick={() => chooseLine(edge.line)}
              >
                <span>{lines[edge.line]?.name}</span>
                <Num value={edge.to_m - edge.from_m} q="length" />
              </button>
            </li>
          ))}
        </ul>
      </div>
      <Divide paddock={paddock} />
    </div>
  );
}
