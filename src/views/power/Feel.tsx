import { say } from '../../core/base/units.js';
import { figure, type SeasonId } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import type { Shock } from '../../core/compare/shock.js';
import { Asked } from '../../ui/parts/Asked.js';
import { usePower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { chooseLine, goTo, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';

const ACROSS: Origin = {
  kind: 'formula',
  title: 'Across the animal',
  formula:
    'V·body/(network + hooves + body); hooves ρ/(8b) for two; between strands no ground in the way',
  source: 'Two pulses, one with nothing touching and one with a probe; docs/model.md, What is felt',
  inputs: [
    { name: 'Soil of a moist day', path: 'defaults.shock.moist.value', quantity: 'resistivity' },
    { name: 'Enough, of what the aim gives then', path: 'defaults.shock.least.value' },
  ],
};

interface Row extends Shock {
  readonly energy_J: number | null;
  readonly rho_ohm_m: number;
  readonly open_V: number;
}

/** What each kind of stock of a line feels at its worst place, season by season. */
export function Feel({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const id = useSession((s) => s.id);
  const lines = useSession((s) => s.plan.lines);
  const chosen = useView((v) => v.line);
  const felt = report.felt;
  const line = chosen && report.lines.includes(chosen) ? chosen : (felt?.line ?? report.lines[0]!);
  const answer = usePower(`feel ${unit.id} ${line}`, (api) => api.feel(unit.id, line));
  const { value, waiting } = answer;
  const rows = (value ?? []).flatMap((s) =>
    s.shocks.map((k): Row => ({ ...k, rho_ohm_m: s.rho_ohm_m, open_V: s.open_V })),
  );
  const enough = figure(cat, 'shock.least');
  const ok = (r: Row) => r.volts_V >= enough * r.want_V;
  const needs = [...new Set(rows.map((r) => r.profile))];
  const poor = needs.filter((p) =>
    (value ?? []).some(
      (s) => s.season !== 'weedy' && !rows.some((r) => r.profile === p && r.season === s.season && ok(r)), // prettier-ignore
    ),
  );
  return (
    <>
      <Select
        label="Line"
        value={line}
        options={report.lines.map((l) => [l, lines[l]?.name ?? l] as const)}
        onChange={(l) => chooseLine(l)}
      />
      <Asked of={answer} doing="Touching it in every season" className="mt-2" />
      <p className="mt-2" role="status">
        {!value && waiting
          ? null
          : rows.length === 0
            ? 'Nobody is named on either side of this line: say who it holds on Land.'
            : poor.length === 0
              ? 'Everybody feels enough in every season.'
              : `${poor.map((p) => cat.profiles[p]!.name).join(', ')}: too little is felt in a season below. More volts help little where the ground does not lead: live and earth strands by turns do.`}{' '}
        {poor.length > 0 && (
          <Button
            onClick={() => {
              chooseLine(line);
              goTo('strands', id);
            }}
          >
            Look at Strands
          </Button>
        )}
      </p>
      <DataTable
        label="What is felt, by season"
        rows={rows}
        keyOf={(r) => `${r.season} ${r.profile} ${r.way}`}
        groupOf={(r) => {
          const s = r.season as SeasonId;
          return `${cat.seasons[s]!.name}: ${say(r.open_V, 'volt', units)} on the fence, soil ${say(r.rho_ohm_m, 'resistivity', units)}`;
        }}
        columns={[
          { name: 'who', cell: (r) => cat.profiles[r.profile]!.name },
          { name: 'how', cell: (r) => (r.way === 'hoof' ? 'nose to hoof' : 'between strands') },
          {
            name: 'across it',
            n: true,
            from: ACROSS,
            cell: (r) => (
              <>
                <Num
                  value={r.volts_V}
                  q="volt"
                  className={ok(r) ? '' : 'text-stop font-semibold'}
                />
                <span className="label"> {ok(r) ? 'enough' : 'too little'}</span>
              </>
            ),
          },
          { name: 'the aim gives', n: true, cell: (r) => <Num value={r.want_V} q="volt" /> },
          { name: 'peak', n: true, cell: (r) => <Num value={r.amps_A} q="ampere" /> },
          { name: 'a pulse', n: true, cell: (r) => <Num value={r.energy_J} q="fineJoule" /> },
        ]}
      />
    </>
  );
}
