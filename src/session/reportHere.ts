/** The report of a property on a page that stands by itself, worked out in this browser. */
import type { Grid } from '../core/plan/schema.js';
import type { Report } from '../core/report/schema.js';
import { groundOf } from '../core/terrain/ground.js';
import type { Opened } from '../formats/change.js';
import { openBook } from './book.js';
import { beginsWith, openWorker, requestReport } from './evaluation.js';
import { useSession } from './state.js';

/** Puts the property in the session's place and waits for its report. */
export async function reportHere(id: string, opened: Opened, grid: Grid | null): Promise<Report> {
  const { plan } = opened;
  const grids = plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {};
  useSession.setState({ id, plan, book: openBook(opened, 'paper'), ground: groundOf(plan, grids), grid, report: null }); // prettier-ignore
  beginsWith(null);
  await openWorker();
  const report = new Promise<Report>((done) => {
    const stop = useSession.subscribe(({ report }) => {
      if (!report) return;
      stop();
      done(report);
    });
  });
  requestReport([]);
  return report;
}
