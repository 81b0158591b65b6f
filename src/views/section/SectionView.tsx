import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { LineList } from '../shell/LineList.js';
import { Limits } from './Limits.js';
import { PlacementPart } from './Placement.js';
import { PostCard } from './PostCard.js';
import { PostList } from './PostList.js';

/** Where each post goes on this ground: limits, placement against equal bays, and every post. */
export function SectionView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  return (
    <div className="flex h-full max-[700px]:h-auto max-[700px]:flex-col">
      <LineList />
      {line && report && (
        <div className="flex min-w-0 flex-1 max-[1000px]:flex-col max-[1000px]:overflow-auto">
          <div className="relative min-w-0 flex-1 overflow-auto p-4 max-[1000px]:flex-none">
            <PlacementPart line={line} report={report} />
            <Limits line={line} report={report} />
          </div>
          <div className="border-rule flex w-[352px] shrink-0 flex-col overflow-hidden border-l p-4 max-[1000px]:w-full max-[1000px]:border-l-0">
            <PostCard line={line} report={report} />
            <PostList line={line} report={report} />
          </div>
        </div>
      )}
    </div>
  );
}
