import { useEffect, useRef } from 'react';
import { Download } from 'lucide-react';
import { figure } from '../../core/plan/catalogue.js';
import { unitOf } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import { runOf } from '../../core/posts/layout.js';
import type { LineReport } from '../../core/report/schema.js';
import { Head, MEASURED, Num, useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { HOLDS, postNear, UPLIFT } from './PostCard.js';

/** Every post with its tape mark from the start of its run, to be read out. */
export function PostList({ line, report }: { line: Line; report: LineReport }) {
  const id = useSession((s) => s.id);
  const cursor = useView((v) => v.cursor);
  const cat = useCatalogue();
  const units = useUnits();
  const chosen = postNear(report.posts, cursor);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  const safety = figure(cat, 'posts.upliftSafety');
  return (
    <>
      <div className="mb-1 flex items-baseline justify-between">
        <h2 className="heading">Set-out</h2>
        <a className="button" href={`/api/properties/${id}/export?format=setout`} download>
          <Download size={14} aria-hidden /> All posts, CSV
        </a>
      </div>
      <div
        ref={box}
        className="min-h-0 flex-1 overflow-y-auto max-[1000px]:max-h-[60vh]"
        tabIndex={0}
        role="group"
        aria-label={`Posts of ${line.name}`}
      >
        <table className="sheet-table text-[12.5px]">
          <thead className="bg-panel sticky top-0">
            <tr>
              <th>post</th>
              <Head name={`tape, ${unitOf('tape', units)}`} from={MEASURED} />
              <Head name="bay" />
              <Head name={`lift, ${unitOf('force', units)}`} from={UPLIFT} />
              <Head name="holds" from={HOLDS} />
            </tr>
          </thead>
          <tbody>
            {report.posts.map((post, i) => {
              const run = runOf(report, post.s_m);
              const before = report.posts[i - 1];
              return (
                <tr
                  key={post.s_m}
                  aria-current={i === chosen ? 'true' : undefined}
                  className={i === chosen ? 'bg-chosen' : ''}
                >
                  <td>
                    <button
                      className="cursor-pointer text-left underline-offset-2 hover:underline"
                      onClick={() => look({ cursor: post.s_m })}
                    >
                      {i + 1} {post.role === 'line' ? (post.fixed ? 'pinned' : '') : post.role}
                    </button>
                    {post.role === 'line' && post.kind !== line.post && (
                      <span className="label block">{cat.posts[post.kind]?.name}</span>
                    )}
                  </td>
                  <td className="n">
                    <Num value={run ? post.tape_m - run.tape_m : post.tape_m} q="tape" bare />
                  </td>
                  <td className="n">
                    {before && <Num value={post.tape_m - before.tape_m} q="tape" bare />}
                  </td>
                  <td className="n">
                    <Num value={Math.max(0, post.uplift_N)} q="force" bare />
                    {post.uplift_N * safety > post.holds_N && (
                      <strong className="text-live" title="more than it holds">
                        {' '}
                        !
                      </strong>
                    )}
                  </td>
                  <td className="n">
                    <Num value={post.holds_N} q="force" bare />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </>
  );
}
