/** Leakage by season, earth and wire as the readings show them; taken into the plan, and put back. */
import { useState } from 'react';
import { soilAt } from '../../core/land/things.js';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import type { Energiser, Plan } from '../../core/plan/schema.js';
import { isSimulated, seasonOf } from '../../core/rounds/logged.js';
import { earthShare } from '../../core/rounds/points.js';
import { askPower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { today } from '../../session/today.js';
import { Button } from '../../ui/parts/Button.js';
import { Part } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useUnits } from '../../ui/parts/Num.js';
import type { FittedFigure, FittedProperty } from '../../core/rounds/fitting.js';
import { useLog, usePointName, valueWords, type Log } from './rounds.js';

/** So many readings are wanted before anything is fitted. */
const FEW = 6;
const NOTE = 'fitted to readings';

export function FitTab() {
  const log = useLog();
  const units = useSession((s) => s.plan.energisers);
  if (!log.known) return <p role="status">Asking for the log …</p>;
  return (
    <div className="max-w-[60em]">
      <p className="mb-3 max-w-[46em]">
        The plan reckons with what is usual. What was read on this property says what it really leaks, how good its earth
        is and what its wire loses; figures that readings say nothing of stay as they are.
      </p>
      {Object.values(units).map((u) => (
        <UnitFit key={u.id} unit={u} log={log} />
      ))}
      <PutBack />
    </div>
  );
} // prettier-ignore

const FIGURES: Readonly<Record<FittedFigure['name'], string>> = {
  leakage: 'Leakage',
  earth: 'Earth resistance',
  wire: 'Resistance of the wire',
};

function UnitFit({ unit, log }: { unit: Energiser; log: Log }) {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const test = useSession((s) => s.report?.energisers[unit.id]?.earth.test);
  const [fit, setFit] = useState<{ of: FittedProperty | null; plan: Plan } | null>(null);
  const [busy, setBusy] = useState(false);
  const points = log.points.filter((p) => p.unit === unit.id && (p.kind === 'volts' || p.kind === 'earth_volts'));
  const read = points.flatMap((p) => log.at.get(p.key) ?? [])
    .filter((r) => !isSimulated(r) && !r.open).sort((a, b) => a.time.localeCompare(b.time));
  if (read.length < FEW)
    return (
      <Part title={unit.name}>
        <p>{read.length} readings so far; {FEW} at least are wanted, best the terminal, the earth and far ends on a dry and on a wet day.</p>
      </Part>
    );
  const ask = () => {
    setBusy(true);
    const usable = read.map((r) => ({ reading: { id: r.id, time: r.time, kind: r.kind, value: r.value, line: r.line, at_m: r.at_m, spot: r.spot, unit: r.unit }, season: seasonOf(r) }));
    void askPower((api) => api.fitted(unit.id, usable, test ? earthShare(test) : 1))
      .then((of) => setFit({ of, plan }))
      .finally(() => setBusy(false));
  };
  return (
    <Part title={unit.name} aside={<Button onClick={ask} disabled={busy}>{busy ? 'Fitting …' : fit ? 'Fit again' : `Fit to ${read.length} readings`}</Button>}>
      {fit && !fit.of && <p role="alert">Nothing of it rests on this fence.</p>}
      {fit?.of && (
        <>
          <DataTable<FittedFigure>
            label={`Figures fitted to the readings of ${unit.name}`}
            rows={fit.of.figures}
            keyOf={(f) => `${f.name} ${f.season}`}
            rowProps={(f) => ({ 'data-fitted': f.season ?? f.name })}
            columns={[
              { name: 'figure', head: 'plain', cell: (f) => `${FIGURES[f.name]}${f.season ? `, ${cat.seasons[f.season]!.name.toLowerCase()}` : ''}` },
              { name: 'of what the plan reckons', n: true, className: 'font-semibold', cell: (f) => `${f.value.toFixed(2)} times` },
              { name: 'nine times of ten between', n: true, cell: (f) => `${f.low90.toFixed(2)} and ${f.high90.toFixed(2)}` },
              { name: 'says', cell: (f) => (f.low90 <= 1 && f.high90 >= 1 ? 'as the plan reckons' : f.value > 1 ? 'more than the plan reckons' : 'less than the plan reckons') },
            ]}
          />
          <Outliers fit={fit.of} log={log} />
          <p className="mt-2 flex flex-wrap items-center gap-3">
            <Button strong disabled={fit.plan !== plan} onClick={() => takeIn(unit, fit.of!, cat)}>Reckon with these</Button>
            <span className="label">
              {fit.of.used} readings, each taken to be off by 5 % for the meter and the model; from usual spreads under “How sure” on Power. docs/model.md, Rounds.
            </span>
          </p>
          {fit.plan !== plan && <p className="label" role="status">The plan has changed since: fit again.</p>}
        </>
      )}
    </Part>
  );
} // prettier-ignore

function Outliers({ fit, log }: { fit: FittedProperty; log: Log }) {
  const name = usePointName();
  const units = useUnits();
  const all = fit.outliers.flatMap(({ id, expected_V }) =>
    log.points.flatMap((p) => (log.at.get(p.key) ?? []).filter((r) => r.id === id).map((r) => `${name(p)}, ${r.time.slice(0, 10)}: ${valueWords(r.kind, r.value, units)} where the rest say ${valueWords(r.kind, expected_V, units)}`)),
  );
  if (all.length === 0) return null;
  return (
    <div className="mt-2" data-outliers>
      <p>△ Left out, since they fit none of the rest:</p>
      <ul className="list-disc pl-5">{all.map((w) => <li key={w}>{w}</li>)}</ul>
    </div>
  );
} // prettier-ignore

const rounded = (x: number): number => Number(x.toPrecision(3));

/** Writes the figures as the property's own: they stand under their names wherever they are used, and can be put back. */
function takeIn(unit: Energiser, fit: FittedProperty, cat: Catalogue): void {
  const note = `${NOTE} of ${unit.name}, ${today()}`;
  commit('figures as readings show them', (d) => {
    const put = (path: string, value: number) => void (d.overrides[path] = { value: rounded(value), note });
    for (const f of fit.figures) {
      // What the readings do not tell from the plan's own is left alone.
      if (f.low90 <= 1 && f.high90 >= 1) continue;
      if (f.name === 'leakage') put(`seasons.${f.season}.leakage_S_per_km`, cat.seasons[f.season!]!.leakage_S_per_km * f.value);
      if (f.name === 'earth') {
        const soil = soilAt(d, unit);
        for (const state of ['dry_ohm_m', 'damp_ohm_m', 'wet_ohm_m'] as const) put(`soils.${soil}.${state}`, recordOf(cat.soils, soil)[state] * f.value);
      }
      if (f.name === 'wire')
        for (const wire of new Set(Object.values(d.lines).flatMap((l) => l.strands.filter((s) => s.duty === 'live').map((s) => s.wire))))
          put(`wires.${wire}.pulse_ohm_per_km`, recordOf(cat.wires, wire).pulse_ohm_per_km * f.value);
    }
  });
} // prettier-ignore

function PutBack() {
  const overrides = useSession((s) => s.plan.overrides);
  const own = Object.entries(overrides).filter(([, o]) => o.note?.startsWith(NOTE));
  if (own.length === 0) return null;
  return (
    <Part title="Fitted figures that the plan reckons with">
      <ul className="mb-2 list-disc pl-5">
        {own.map(([path, o]) => (
          <li key={path} data-own-figure={path}>{pathWords(path)}: {o.note}</li>
        ))}
      </ul>
      <Button onClick={() => commit('fitted figures put back', (d) => {
        for (const [path, o] of Object.entries(d.overrides)) if (o.note?.startsWith(NOTE)) delete d.overrides[path];
      })}>
        Put them back
      </Button>
    </Part>
  );
} // prettier-ignore

function pathWords(path: string): string {
  const [table, name, figure] = path.split('.');
  if (table === 'seasons') return `Leakage, season “${name}”`;
  return table === 'soils'
    ? `Soil “${name}”, ${figure!.replace('_ohm_m', '')}`
    : `Wire “${name}”, resistance to a pulse`;
}
