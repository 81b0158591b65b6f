import { MiniBenches } from './MiniBenches.js';
import { DataTable, type Column } from '../../ui/parts/DataTable.js';
import type { ReactNode } from 'react';
import { figureText, say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line, Strand } from '../../core/plan/schema.js';
import type { Comparison, Row } from '../../core/compare/compare.js';
import { differences } from '../../core/strands/designs.js';
import type { Shock } from '../../core/compare/shock.js';
import { Num, useUnits, WhereFrom, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { restring } from '../../core/edit/joining.js';
import { commit, useSession } from '../../session/session.js';
import { Advice } from './Advice.js';
import { usePerMetre } from '../../ui/parts/money.js';
import { STATE } from './words.js';

/** The orders of duties side by side for this line, with what an animal feels of each. */
export function Proposals({ line }: { line: Line }) {
  const choices = useSession((s) => s.choices);
  if (!choices || choices.line !== line.id) return <p role="status">Working it out …</p>;
  if (!choices.comparison)
    return <p>Nobody is said to stand here yet: say it under “What it asks”.</p>;
  return (
    <>
      <Advice line={line} comparison={choices.comparison} />
      <Table line={line} comparison={choices.comparison} />
    </>
  );
}

const COST: Origin = {
  kind: 'formula',
  title: 'Cost by the metre',
  formula: 'posts, wire with spare, insulators, clamps, ends / length over ground',
  source: 'Counted as on Supplies, with coils as they are used and without gates and energiser',
};
const LEAKAGE: Origin = {
  kind: 'formula',
  title: 'Leakage of the live strands together, wettest season',
  formula: 'mean of the season x live strands, shared by height',
  source: 'A strand that is switched off in that season leaks nothing',
  inputs: [
    { name: 'Mean of a strand', path: 'seasons.wet.leakage_S_per_km', quantity: 'leakage' },
    { name: 'Falls by e over', path: 'defaults.network.leakHeight.value', quantity: 'height' },
  ],
};
const GAP: Origin = {
  kind: 'formula',
  title: 'Widest gap with what a push opens',
  formula: 'gap + d₁ + d₂, where F = 4 d (T + EA ΔL/L) / L at mid-bay',
  source: 'Hottest day, longest bay of this line, below the reach of the stock',
  inputs: [{ name: 'Push', path: 'defaults.wire.pushForce.value', quantity: 'force' }],
};
const UPKEEP: Origin = {
  kind: 'formula',
  title: 'Upkeep in a year',
  formula: 'base + strand x (n - 1) + mow x exp(-h / 0.3 m)',
  inputs: [
    { name: 'Base, h/km', path: 'defaults.upkeep.base.value' },
    { name: 'Each further strand, h/km', path: 'defaults.upkeep.strand.value' },
    { name: 'Mowing under a strand on the ground, h/km', path: 'defaults.upkeep.mow.value' },
    {
      name: 'Share of it left with a cut-out',
      path: 'defaults.upkeep.switchedShare.value',
    },
  ],
};

function Table({ line, comparison }: { line: Line; comparison: Comparison }) {
  const cat = useCatalogue();
  const units = useUnits();
  const perMetre = usePerMetre();
  const { rows, recommended } = comparison;
  const report = useSession((s) => s.report?.lines[line.id]);
  const name = (r: Row) => (r.order === 'stands' ? 'What stands' : cat.orders[r.order]!.name);
  const take = (r: Row) =>
    commit(`${name(r).toLowerCase()} on ${line.name}`, (d) => {
      restring(
        d,
        line.id,
        r.strands!.map((s) => ({ ...s })),
      );
    });
  const needs = report?.requirement?.needs ?? [];
  const compared: Compared[] = [
    { what: 'strands', of: (r) => r.strands!.length },
    {
      what: `from the top, ${units === 'metric' ? 'mm' : 'in'}`,
      always: true,
      of: (r) =>
        r.strands ? (
          <Heights strands={r.strands} />
        ) : (
          <span className="label block max-w-[140px] pl-4 text-left whitespace-normal">
            {r.refused}
          </span>
        ),
    },
    {
      what: <Headed words="cost" from={COST} />,
      of: (r) => <span className="figure">{perMetre(r.cost_per_m)}</span>,
    },
    ...needs.flatMap((n) => {
      const animal = recordOf(cat.animals, recordOf(cat.profiles, n.profile).animal);
      return (['dry', 'wet'] as const).map((season): Compared => ({
        what: (
          <span className="whitespace-nowrap">
            {cat.profiles[n.profile]!.name}, {cat.seasons[season]!.name.toLowerCase()}
            <WhereFrom
              shown="what it feels"
              origin={shockOrigin(n.profile, animal.name, season, comparison, cat)}
            />
          </span>
        ),
        of: (r) => (
          <Shocks shocks={r.shocks.filter((s) => s.profile === n.profile && s.season === season)} />
        ),
      }));
    }),
    {
      what: <Headed words="leakage, wettest" from={LEAKAGE} />,
      of: (r) => <Num value={r.leakage_S_per_km} q="leakage" />,
    },
    {
      what: <Headed words="widest gap, pushed" from={GAP} />,
      of: (r) => <Num value={r.effectiveGap_m} q="height" />,
    },
    {
      what: <Headed words="upkeep in a year" from={UPKEEP} />,
      of: (r) => <Num value={r.upkeep_h_per_km} q="upkeep" />,
    },
  ];
  return (
    <>
      <MiniBenches
        list={rows.map((r) => ({
          id: r.order,
          name: name(r),
          strands: r.strands,
          why: r.refused,
          best: r.order === recommended,
          stands: r.order === 'stands' || (r.strands !== null && same(r.strands, line.strands)),
          figure: r.strands ? perMetre(r.cost_per_m) : '',
        }))}
        onTake={(order) => take(rows.find((r) => r.order === order)!)}
      />
      <details>
        <summary className="cursor-pointer py-1">In figures: volts felt, leakage, upkeep</summary>
        <DataTable
          label="Orders of duties compared"
          className="legs"
          rows={compared}
          keyOf={(_, i) => i}
          columns={[
            { name: 'what is compared', quiet: true, head: true, cell: (c) => c.what },
            ...rows.map((r): Column<Compared> => ({
              name: (
                <>
                  <span className="text-ink text-[0.964rem] font-semibold">{name(r)}</span>
                  {r.order === recommended && (
                    <span className="text-good block">★ recommended</span>
                  )}
                </>
              ),
              n: true,
              className: `align-top ${r.order === recommended ? 'bg-chosen' : ''}`,
              headClass: r.order === recommended ? 'bg-chosen' : '',
              cell: (c) => (r.strands || c.always ? c.of(r) : <span className="label">–</span>),
            })),
          ]}
        />
      </details>
      <p className="label mt-2 max-w-[720px]">
        ✓ the animal feels at least what the aim gives it on moist ground; ✕ it feels less. Through
        the hoof and, where a live and an earth strand lie side by side below its reach, between the
        two; at the place of this line that has the fewest volts. L live, E earth, C cold, * rope or
        tape, s on a cut-out.
      </p>
    </>
  );
}

const same = (a: readonly Strand[], b: readonly Strand[]): boolean =>
  differences(a, b).length === 0;

const LETTER = { live: 'L', earth: 'E', cold: 'C' } as const;

function Heights({ strands }: { strands: readonly Strand[] }) {
  const units = useUnits();
  const cat = useCatalogue();
  return (
    <span className="figure block text-[0.929rem] leading-[1.35]">
      {strands
        .map((s, i) => (
          <span key={i} className="block">
            {figureText(s.height_m, 'height', units)}{' '}
            <span
              style={{
                color: s.duty === 'live' ? 'var(--live)' : s.duty === 'earth' ? 'var(--earth)' : '',
              }}
            >
              {LETTER[s.duty]}
            </span>
            {recordOf(cat.wires, s.wire).form === 'plain' ? '' : '*'}
            {s.switched ? 's' : ''}
          </span>
        ))
        .reverse()}
    </span>
  );
}

/** Peak volts across the animal by each way, with whether the aim is kept. */
function Shocks({ shocks }: { shocks: readonly Shock[] }) {
  const units = useUnits();
  if (shocks.length === 0) return <span className="label">not fed</span>;
  return (
    <>
      {shocks.map((s) => {
        const keeps = s.volts_V >= s.want_V;
        return (
          <span key={s.way} className="block whitespace-nowrap">
            <span className="label">{s.way === 'hoof' ? 'hoof ' : 'between '}</span>
            <span className="figure">{say(s.volts_V, 'volt', units)}</span>{' '}
            <span className={keeps ? 'text-good' : 'text-stop font-semibold'}>
              <span aria-hidden>{keeps ? STATE.kept.glyph : STATE.broken.glyph}</span>
              <span className="sr-only">{keeps ? 'enough' : 'too little'}</span>
            </span>
          </span>
        );
      })}
    </>
  );
}

function shockOrigin(
  profile: string,
  animal: string,
  season: 'dry' | 'wet',
  comparison: Comparison,
  cat: ReturnType<typeof useCatalogue>,
): Origin {
  const key = cat.profiles[profile]!.animal;
  const felt = comparison.rows.flatMap((r) =>
    r.shocks
      .filter((s) => s.profile === profile && s.season === season)
      .map((s) => ({
        name: `${r.order === 'stands' ? 'What stands' : cat.orders[r.order]!.name}, ${s.way === 'hoof' ? 'hoof' : 'between'}`,
        text: `${s.amps_A.toFixed(1)} A at the peak`,
      })),
  );
  const shock = comparison.rows.flatMap((r) => r.shocks).find((s) => s.profile === profile);
  return {
    kind: 'formula',
    title: `Peak volts across a ${animal.toLowerCase()}`,
    formula:
      'I = V/R_in z₁₂ / (z₂₂ + R + R_hoof); V = f(R_in - z₁₂² / (z₂₂ + R + R_hoof)); R_hoof = rho / (8 b)',
    source: `The network seen from the energiser and from the animal (Thevenin), on its load line with the animal as load; two hooves as surface discs [published: rho/(4 b) each]. Soil under this line: ${comparison.soil_ohm_m[season].toFixed(0)} ohm m. Wanted: the aim across the same animal on moist ground${shock ? `, ${(shock.want_V / 1000).toFixed(1)} kV` : ''}.`,
    inputs: [
      { name: 'Nose to hoof', path: `animals.${key}.body_ohm`, quantity: 'ohm' },
      { name: 'Radius of a hoof', path: `animals.${key}.hoof_m`, quantity: 'height' },
      { name: 'Aim', path: `profiles.${profile}.aim_V`, quantity: 'volt' },
      { name: 'Moist ground', path: 'defaults.shock.moist.value', quantity: 'resistivity' },
      ...felt,
    ],
  };
}

/** One thing by which the orders are compared. */
interface Compared {
  readonly what: ReactNode;
  of(r: Row): ReactNode;
  /** Said of an order too that is not for this line. */
  readonly always?: boolean;
}

const Headed = ({ words, from }: { words: string; from: Origin }) => (
  <>
    {words}
    <WhereFrom origin={from} shown={words} />
  </>
);
