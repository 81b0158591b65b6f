import { memo } from 'react';
import { Button } from '../../ui/parts/Button.js';
import { Tape } from './Tape.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Download, Printer } from 'lucide-react';
import { figure } from '../../core/plan/catalogue.js';
import { unitOf } from '../../core/base/units.js';
import { runOf } from '../../core/posts/layout.js';
import { MEASURED, Num, useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { HOLDS, postNear, UPLIFT, type AtPost } from './PostCard.js';

/** Every post with its tape mark from the start of its run, to be read out. */
export const PostList = memo(function PostList({ line, report, cursor }: AtPost) {
  const id = useSession((s) => s.id);
  const cat = useCatalogue();
  const units = useUnits();
  const chosen = postNear(report.posts, cursor);
  const safety = figure(cat, 'posts.upliftSafety');
  const picture = useView((v) => v.postsAs === 'tape');
  return (
    <>
      <div className="mb-1 flex items-baseline justify-between">
        <h2 className="heading">Where each post goes</h2>
        <span className="inline-flex flex-wrap justify-end gap-1">
          <Button
            aria-pressed={picture}
            onClick={() => look({ postsAs: picture ? 'table' : 'tape' })}
          >
            Tape
          </Button>
          <a className="button" href={`/setout/${id}?line=${encodeURIComponent(line.id)}`}>
            <Printer size={14} aria-hidden /> Sheet
          </a>
          <a className="button" href={`/api/properties/${id}/export?format=setout`} download>
            <Download size={14} aria-hidden /> CSV
          </a>
        </span>
      </div>
      {picture && <Tape line={line} report={report} />}
      {!picture && (
        <DataTable
          label={`Posts of ${line.name}`}
          rows={report.posts}
          keyOf={(post) => post.s_m}
          chosen={(_, i) => i === chosen}
          scroll="max-h-[60vh] min-h-0 @[46rem]:max-h-none @[46rem]:flex-1"
          className="text-[0.893rem]"
          columns={[
            {
              name: 'post',
              cell: (post, i) => (
                <>
                  <button
                    className="cursor-pointer text-left underline-offset-2 hover:underline"
                    onClick={() => look({ cursor: post.s_m })}
                  >
                    {i + 1} {post.role === 'line' ? (post.fixed ? 'pinned' : '') : post.role}
                  </button>
                  {post.role === 'line' && post.kind !== line.post && (
                    <span className="label block">{cat.posts[post.kind]?.name}</span>
                  )}
                </>
              ),
            },
            {
              name: `tape, ${unitOf('tape', units)}`,
              from: MEASURED,
              n: true,
              cell: (post) => {
                const run = runOf(report, post.s_m);
                return <Num value={run ? post.tape_m - run.tape_m : post.tape_m} q="tape" bare />;
              },
            },
            {
              name: 'bay',
              n: true,
              cell: (post, i) =>
                i > 0 && <Num value={post.tape_m - report.posts[i - 1]!.tape_m} q="tape" bare />,
            },
            {
              name: `lift, ${unitOf('force', units)}`,
              from: UPLIFT,
              n: true,
              by: (post) => post.uplift_N,
              cell: (post) => (
                <>
                  <Num value={Math.max(0, post.uplift_N)} q="force" bare />
                  {post.uplift_N * safety > post.holds_N && (
                    <strong className="text-stop" title="more than it holds">
                      {' '}
                      !
                    </strong>
                  )}
                </>
              ),
            },
            {
              name: 'holds',
              from: HOLDS,
              n: true,
              by: (post) => post.holds_N,
              cell: (post) => <Num value={post.holds_N} q="force" bare />,
            },
          ]}
        />
      )}
    </>
  );
});
