import { useDeferredValue } from 'react';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { Limits } from './Limits.js';
import { PlacementPart } from './Placement.js';
import { PostCard, type AtPost } from './PostCard.js';
import { PostList } from './PostList.js';
import { WalkPart } from './WalkPart.js';

/** Where each post goes on this ground: limits, placement against equal bays, and every post. */
export function SectionView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  return (
    <div className="@container h-full">
      {line && report && (
        <div className="flex h-full flex-col @[46rem]:flex-row">
          <div className="relative min-w-0 shrink-0 p-4 @[46rem]:flex-1 @[46rem]:shrink @[46rem]:overflow-auto">
            <WalkPart line={line} report={report} />
            <PlacementPart line={line} report={report} />
            <Limits line={line} report={report} />
          </div>
          <div className="border-rule flex min-w-0 flex-col p-4 @[46rem]:w-[40%] @[46rem]:max-w-[36rem] @[46rem]:min-w-[24rem] @[46rem]:overflow-hidden @[46rem]:border-l print:w-auto print:max-w-none print:border-0">
            <Posts line={line} report={report} />
          </div>
        </div>
      )}
    </div>
  );
}

/** The post that is pointed at, and all of them. The section itself follows the pointer; these may be a moment behind. */
function Posts(on: Omit<AtPost, 'cursor'>) {
  const cursor = useDeferredValue(useView((v) => v.cursor));
  return (
    <>
      <PostCard {...on} cursor={cursor} />
      <PostList {...on} cursor={cursor} />
    </>
  );
}
