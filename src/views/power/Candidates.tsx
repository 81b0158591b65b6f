import { DataTable } from '../../ui/parts/DataTable.js';
import { say } from '../../core/base/units.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { Part } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';

/** Every unit of the catalogue on this fence; the smallest that meets the aim with the reserve. */
export function Candidates({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const reserve = useSession((s) => s.plan.sizing.reserve);
  const most = Math.max(2, ...report.candidates.map((c) => c.margin));
  const goal = 1 + reserve;
  const supply = cat.energisers[unit.model]?.supply;
  return (
    <Part title="Which unit">
      <p className="mb-2">
        {report.smallest ? (
          <>
            Smallest {supply} unit that meets the aim with {say(reserve, 'percent', units)} in
            reserve: <strong>{cat.energisers[report.smallest]!.name}</strong>.
          </>
        ) : (
          <>
            No {supply} unit within the limit meets the aim with {say(reserve, 'percent', units)} in
            reserve: less growth, more rods, or two fences.
          </>
        )}
      </p>
      <DataTable
        label="Units of the catalogue"
        rows={report.candidates}
        keyOf={(c) => c.model}
        rowProps={(c) => ({ className: c.model === unit.model ? 'bg-chosen' : '' })}
        columns={[
          {
            name: 'unit',
            cell: (c) => (
              <>
                {cat.energisers[c.model]!.name}
                {c.model === report.smallest && <span className="label"> smallest</span>}
              </>
            ),
          },
          {
            name: 'output',
            n: true,
            cell: (c) => <Num value={c.output_J} q="joule" from={plateOrigin(c.model)} />,
          },
          {
            name: 'worst volts against the aim',
            cell: (c) => (
              <Bar
                share={c.margin / most}
                goal={goal / most}
                meets={c.meets}
                text={say(c.margin, 'percent', units)}
              />
            ),
          },
          { name: 'worst', from: WORST, n: true, cell: (c) => <Num value={c.worst_V} q="volt" /> },
          {
            name: 'choose',
            quiet: true,
            n: true,
            cell: (c) => (
              <Button
                className="!min-h-7"
                aria-pressed={c.model === unit.model}
                onClick={() =>
                  commit(`unit of ${unit.name}: ${cat.energisers[c.model]!.name}`, (d) => {
                    d.energisers[unit.id]!.model = c.model;
                  })
                }
              >
                {c.model === unit.model ? 'chosen' : 'choose'}
              </Button>
            ),
          },
        ]}
      />
      <p className="label mt-1">
        By the rule of thumb of joules by length, <Num value={report.fence_m} q="far" /> of fence
        with <Num value={report.wire_m} q="far" /> of live wire would want{' '}
        <Num
          value={report.joulesByLength}
          q="joule"
          from={{
            kind: 'formula',
            title: 'Joules by length of fence',
            formula: 'output = length x joules per km',
            source: 'Common practice, many strands',
            inputs: [{ name: 'Output for each km', path: 'defaults.energiser.joulesPerKm.value' }],
          }}
        />
        . It knows nothing of growth, strands or soil.
      </p>
    </Part>
  );
}

const WORST: Origin = {
  kind: 'formula',
  title: 'The same network on each unit',
  formula: 'volts at the worst live point, in the season with the least of volts ÷ aim',
  source: 'Its own load line on the load above; docs/model.md, Power',
};

const plateOrigin = (model: string): Origin => ({
  kind: 'default',
  title: 'Data plate',
  source: 'Invented; take the figures of the plate of the unit you mean to buy',
  inputs: [
    { name: 'Open circuit', path: `energisers.${model}.open_V`, quantity: 'volt' },
    { name: 'into 500 ohm', path: `energisers.${model}.at500_V`, quantity: 'volt' },
    { name: 'into 100 ohm', path: `energisers.${model}.at100_V`, quantity: 'volt' },
    { name: 'into 50 ohm', path: `energisers.${model}.at50_V`, quantity: 'volt' },
  ],
});

/** Share of the aim, with a stroke where aim and reserve stand. */
function Bar({
  share,
  goal,
  meets,
  text,
}: {
  share: number;
  goal: number;
  meets: boolean;
  text: string;
}) {
  return (
    <span className="flex items-center gap-2 whitespace-nowrap">
      <span className="border-rule relative inline-block h-3 w-16 border">
        <span
          className="absolute inset-y-0 left-0"
          style={{
            width: `${Math.min(1, share) * 100}%`,
            background: meets ? 'var(--good)' : 'var(--soft)',
          }}
        />
        <span
          className="bg-ink absolute -inset-y-1 w-0.5"
          style={{ left: `${Math.min(1, goal) * 100}%` }}
        />
      </span>
      <span className="figure text-xs">{text}</span>
      <span className="label">{meets ? 'meets' : 'short'}</span>
    </span>
  );
}
