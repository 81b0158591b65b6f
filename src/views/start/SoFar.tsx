import { useSession } from '../../session/session.js';
import { MEASURED, Num } from '../../ui/parts/Num.js';
import { AREA } from '../land/areaOrigin.js';
import { moneyText } from '../../core/base/locale.js';
import type { Begun } from '../../workers/begin.js';

/** What the answers make so far: length, area, ends, cost. */
export function SoFar({ begun }: { begun: Begun }) {
  const currency = useSession((s) => s.plan.currency);
  const { report } = begun;
  return (
    <dl className="border-ink mt-6 grid grid-cols-[1fr_auto] gap-x-3 border-t pt-2">
      <dt className="label">over ground</dt>
      <dd className="text-right">
        <Num value={report.totals.ground_m} q="far" from={MEASURED} />
      </dd>
      {report.paddocks.length > 0 && (
        <>
          <dt className="label">
            {report.paddocks.length === 1 ? 'one paddock' : `${report.paddocks.length} paddocks`}
          </dt>
          <dd className="text-right">
            <Num value={report.paddocks.reduce((m, p) => m + p.area_m2, 0)} q="area" from={AREA} />
          </dd>
        </>
      )}
      <dt className="label">braced ends</dt>
      <dd className="text-right">
        <span className="figure">{bracedIn(report)}</span>
      </dd>
      <dt className="label">costs, at the prices that come with the program</dt>
      <dd className="text-right">
        <span className="figure">{moneyText(report.totals.cost, currency, true)}</span>
      </dd>
    </dl>
  );
}

/** Ends that are to be braced: each takes one rail. */
export const bracedIn = (report: Begun['report']): number =>
  report.supplies.find((s) => s.id === 'end.rail')?.quantity ?? 0;
