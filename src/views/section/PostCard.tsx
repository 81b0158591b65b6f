import { memo } from 'react';
import { Pin, PinOff } from 'lucide-react';
import { pinAt, movePost, removePin, setEqual, setPin } from '../../core/plan/pins.js';
import { figure } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, Post } from '../../core/report/schema.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Select } from '../../ui/parts/controls.js';
import { Num, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit } from '../../session/session.js';
import { look } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';

/** Rank of the post at the cursor: the nearest one. */
export function postNear(posts: readonly Post[], s: number | null): number | null {
  if (s === null || posts.length === 0) return null;
  let best = 0;
  posts.forEach((p, i) => {
    if (Math.abs(p.s_m - s) < Math.abs(posts[best]!.s_m - s)) best = i;
  });
  return best;
}

export const UPLIFT: Origin = {
  kind: 'formula',
  title: 'Uplift',
  formula: 'sum of strand pulls × (rise to both neighbours ÷ distance) − half the wire’s weight',
  source: 'Exact vector sum at the coldest night',
};
export const HOLDS: Origin = {
  kind: 'formula',
  title: 'Pull-out resistance',
  formula: 'perimeter × shaft friction below the neglected top + weight',
  source: 'Soil figures are memory and judgement',
  inputs: [
    { name: 'Neglected top', path: 'defaults.posts.neglectDepth.value', quantity: 'height' },
    { name: 'Safety on uplift', path: 'defaults.posts.upliftSafety.value' },
  ],
};

/** A line, and the place on it that section and map point at, plan m. */
export interface AtPost {
  readonly line: Line;
  readonly report: LineReport;
  readonly cursor: number | null;
}

/** The post at the cursor: what it is, pinned or free, and what pulls at it. */
export const PostCard = memo(function PostCard({ line, report, cursor }: AtPost) {
  const cat = useCatalogue();
  const rank = postNear(report.posts, cursor);
  if (rank === null)
    return (
      <p className="label mb-3">Point at a post in the section or the list to pin or change it.</p>
    );
  const post = report.posts[rank]!;
  const pin = pinAt(line, post.s_m);
  const own = post.role === 'line';
  const safety = figure(cat, 'posts.upliftSafety');
  const lifts = post.uplift_N * safety > post.holds_N;
  const nextFixed = report.posts.find((p, i) => i > rank && p.fixed);
  return (
    <div className="border-ink mb-3 shrink-0 border p-3" data-post-card>
      <p className="mb-1 font-semibold">
        Post {rank + 1}, {post.role === 'line' ? (pin ? 'pinned' : 'line post') : post.role}
      </p>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <Select
          label="Kind"
          value={post.kind}
          options={Object.entries(cat.posts)
            .filter(([, p]) => p.use !== 'brace')
            .map(([k, p]) => [k, p.name] as const)}
          onChange={(kind) =>
            commit(`kind of a post of ${line.name}`, (d) => setPin(d, line.id, post.s_m, { kind }))
          }
        />
        {own && (
          <AlongField
            label="At"
            line={line}
            report={report}
            value={post.s_m}
            onCommit={(s) => {
              commit(`moved a post of ${line.name}`, (d) =>
                movePost(d, line.id, post.s_m, s, post.kind === line.post ? null : post.kind),
              );
              look({ cursor: s });
            }}
          />
        )}
        {own && (
          <Button
            aria-pressed={pin !== undefined}
            title="Pin (P)"
            onClick={() => togglePin(line, post)}
          >
            {pin ? <PinOff size={14} aria-hidden /> : <Pin size={14} aria-hidden />}
            {pin ? 'Let it go' : 'Pin it here'}
          </Button>
        )}
        {nextFixed && (
          <Button
            onClick={() =>
              commit(`equal bays on a part of ${line.name}`, (d) =>
                setEqual(d, line.id, post.s_m, nextFixed.s_m),
              )
            }
          >
            Equal bays to the next fixed post
          </Button>
        )}
      </div>
      <p className="mt-2">
        Lifted <Num value={Math.max(0, post.uplift_N)} q="force" from={UPLIFT} />, holds{' '}
        <Num value={post.holds_N} q="force" from={HOLDS} />
        {lifts && (
          <strong className="text-stop">
            {' '}
            – too little: a stouter post, an anchor, a dropper or fill here, or end the run.
          </strong>
        )}
      </p>
    </div>
  );
});

/** Pins a post where it stands, or lets it go. */
export function togglePin(line: Line, post: Post): void {
  if (pinAt(line, post.s_m))
    commit(`let a post of ${line.name} go`, (d) => removePin(d, line.id, post.s_m));
  else
    commit(`pinned a post of ${line.name}`, (d) =>
      setPin(d, line.id, post.s_m, { kind: post.kind === line.post ? null : post.kind }),
    );
}
