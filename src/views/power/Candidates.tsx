import { say } from '../../core/base/units.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { Part } from '../../ui/parts/controls.js';
import { Head, Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';

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
      <div
        className="overflow-x-auto"
        tabIndex={0}
        role="group"
        aria-label="Units of the catalogue"
      >
        <table className="sheet-table">
          <thead>
            <tr>
              <th>unit</th>
              <th className="n">output</th>
              <th>worst volts against the aim</th>
              <Head name="worst" from={WORST} />
              <th>
                <span className="sr-only">choose</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {report.candidates.map((c) => {
              const m = cat.energisers[c.model]!;
              const own = c.model === unit.model;
              return (
                <tr key={c.model} className={own ? 'bg-chosen' : ''}>
                  <td>
                    {m.name}
                    {c.model === report.smallest && <span className="label"> smallest</span>}
                  </td>
                  <td className="n">
                    <Num value={c.output_J} q="joule" from={plateOrigin(c.model)} />
                  </td>
                  <td>
                    <Bar
                      share={c.margin / most}
                      goal={goal / most}
                      meets={c.meets}
                      text={say(c.margin, 'percent', units)}
                    />
                  </td>
                  <td className="n">
                    <Num value={c.worst_V} q="volt" />
                  </td>
                  <td className="n">
                    <button
                      className="button !min-h-7"
                      aria-pressed={own}
                      onClick={() =>
                        commit(`unit of ${unit.name}: ${m.name}`, (d) => {
                          d.energisers[unit.id]!.model = c.model;
                        })
                      }
                    >
                      {own ? 'chosen' : 'choose'}
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
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
