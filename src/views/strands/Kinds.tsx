import { inUnits } from '../../core/base/prose.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import type { KindRow } from '../../core/compare/kinds.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import { Caution, Part } from '../../ui/parts/controls.js';
import { Num, useUnits, WhereFrom, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { usePerMetre } from '../../ui/parts/money.js';
import { who } from './words.js';

const COST: Origin = {
  kind: 'formula',
  title: 'Cost by the metre, other kinds',
  formula: 'materials + rows x (post + insulators) / bay + braces / length',
  source: 'Prices of this property, all invented until you put your own in',
};
const YEARS: Origin = {
  kind: 'default',
  title: 'How long it lasts',
  source: 'From memory and judgement; soil, salt and care change it much',
};

/** What else could stand here, by the metre of this line. */
export function Kinds({ line }: { line: Line }) {
  const choices = useSession((s) => s.choices);
  if (!choices || choices.line !== line.id) return <p role="status">Working it out …</p>;
  const deer = choices.kinds.filter((k) => k.height_m !== null);
  const other = choices.kinds.filter((k) => k.height_m === null);
  const stands = choices.comparison?.rows.find((r) => r.order === 'stands');
  return (
    <>
      <Part title="Other kinds of fence for this line">
        <Table
          rows={other}
          own={
            stands && {
              cost: stands.cost_per_m,
              upkeep: stands.upkeep_h_per_km,
            }
          }
          line={line}
        />
        <Caution>
          Electrified netting is not left unattended with lambs or kids, and nothing live may trap a
          person or an animal. Barbed wire is never energised.
        </Caution>
      </Part>
      <Part title="Against deer">
        <Table rows={deer} line={line} />
        <Lean />
      </Part>
    </>
  );
}

function Table({
  rows,
  own,
  line,
}: {
  rows: readonly KindRow[];
  own?: { cost: number; upkeep: number } | undefined;
  line: Line;
}) {
  const cat = useCatalogue();
  const perMetre = usePerMetre();
  const units = useUnits();
  const report = useSession((s) => s.report?.lines[line.id]);
  const posts = report ? (100 * report.posts.length) / Math.max(report.ground_m, 1) : 0;
  const ownLife = figure(cat, 'supplies.fenceLife');
  const names = (ids: readonly string[]) => ids.map((id) => who(id, cat)).join(', ');
  const tall = rows.some((r) => r.height_m !== null);
  const money = { n: true, className: 'figure' };
  const standing: KindRow = {
    kind: '',
    height_m: null,
    width_m: 0,
    cost_per_m: own?.cost ?? 0,
    hours_per_m: 0,
    cost_per_m_year: (own?.cost ?? 0) / ownLife,
    posts_per_100m: posts,
    life_y: ownLife,
    upkeep_h_per_km: own?.upkeep ?? 0,
    fails: [],
  };
  return (
    <DataTable
      label="Other kinds of fence"
      className="legs"
      rows={own ? [standing, ...rows] : rows}
      keyOf={(r) => r.kind}
      rowProps={(r) => ({ className: r === standing ? 'bg-chosen' : '' })}
      columns={[
        {
          name: 'kind',
          cell: (r) => (r === standing ? 'What stands here' : <KindName kind={r.kind} />),
        },
        tall && { name: 'high', n: true, cell: (r) => <Num value={r.height_m} q="tape" /> },
        tall && {
          name: 'ground taken',
          n: true,
          cell: (r) => <Num value={r.width_m || null} q="tape" />,
        },
        { name: 'cost', from: COST, ...money, cell: (r) => perMetre(r.cost_per_m) },
        { name: 'a year', from: YEARS, ...money, cell: (r) => perMetre(r.cost_per_m_year) },
        {
          name: inUnits('posts in 100 m', units),
          n: true,
          cell: (r) => <Num value={r.posts_per_100m} q="count" />,
        },
        { name: 'lasts', n: true, cell: (r) => <Num value={r.life_y} q="years" /> },
        { name: 'upkeep', n: true, cell: (r) => <Num value={r.upkeep_h_per_km} q="upkeep" /> },
        {
          name: 'holds and stops',
          className: '!whitespace-normal',
          cell: (r) => {
            if (r === standing) return 'see the rules above';
            const k = recordOf(cat.kinds, r.kind);
            const stops = k.stops.length > 0 ? `stops ${names(k.stops)}` : '';
            return [names(k.holds), stops].filter(Boolean).join('; ');
          },
        },
        {
          name: 'not for this line’s',
          className: '!whitespace-normal',
          cell: (r) =>
            r === standing ? (
              '–'
            ) : r.fails.length ? (
              <span className="text-stop">✕ {names(r.fails)}</span>
            ) : (
              <span className="text-good">✓ holds all</span>
            ),
        },
      ]}
    />
  );
}

/** The leaning fence drawn from the end: how far out, how high. */
function Lean() {
  const cat = useCatalogue();
  const angle = figure(cat, 'deer.leanAngle');
  const slant = figure(cat, 'deer.leanLength');
  const rad = (angle * Math.PI) / 180;
  return (
    <p className="mt-2">
      A slant of{' '}
      <Num
        value={slant}
        q="tape"
        from={{
          kind: 'default',
          title: 'Leaning fence',
          inputs: [
            { name: 'Slant height', path: 'defaults.deer.leanLength.value', quantity: 'tape' },
            { name: 'Angle from upright, degrees', path: 'defaults.deer.leanAngle.value' },
          ],
        }}
      />{' '}
      at <Num value={angle} q="degree" /> from upright reaches{' '}
      <Num value={slant * Math.sin(rad)} q="tape" /> outward and{' '}
      <Num value={slant * Math.cos(rad)} q="tape" /> high; two rows stand{' '}
      <Num
        value={figure(cat, 'deer.rowsApart')}
        q="tape"
        from={{
          kind: 'default',
          title: 'Two rows',
          inputs: [{ name: 'Rows apart', path: 'defaults.deer.rowsApart.value', quantity: 'tape' }],
        }}
      />{' '}
      apart.
    </p>
  );
}

/** A kind of fence with what its figures rest on. */
function KindName({ kind }: { kind: string }) {
  const k = recordOf(useCatalogue().kinds, kind);
  return (
    <>
      {k.name}
      <WhereFrom
        shown={k.name}
        origin={{
          kind: 'default',
          title: k.name,
          source: k.why,
          inputs: [
            { name: 'Lasts, years', path: `kinds.${kind}.life_y` },
            { name: 'Upkeep, h/km a year', path: `kinds.${kind}.upkeep_h_per_km` },
            { name: 'Bay, large stock', path: `kinds.${kind}.bayLarge_m`, quantity: 'length' },
            { name: 'Bay, small stock', path: `kinds.${kind}.baySmall_m`, quantity: 'length' },
          ],
        }}
      />
    </>
  );
}
