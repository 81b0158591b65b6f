/** A post replaced, an end moved: what is let down first, what must be held, and what to take along. */
import { say } from '../../core/base/units.js';
import { addedPosts, fittings } from '../../core/ends/takes.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { PULL } from './origins.js';
import { ROLES } from './place.js';

export function ReplaceTab({ line, end }: { line: Line; end: EndReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const strain = useSession((s) => s.report?.lines[line.id]?.strain) ?? [];
  const today = line.strands.reduce((sum, s) => sum + (strain.find((r) => r.wire === s.wire)?.today_N ?? 0), 0); // prettier-ignore
  const posts = [end.post, ...addedPosts(end)];
  const items = [
    ...posts.map((p) => [recordOf(cat.posts, p).name, 1, ''] as const),
    ...fittings(end, cat).filter(([, n]) => n > 0).map(([id, n]) => [id.startsWith('wire.') ? 'Brace wire' : id === 'staple' ? 'Staples' : recordOf(cat.prices, id).name, n, id.startsWith('wire.') ? 'm' : ''] as const), // prettier-ignore
    ['Joiner, one a strand', line.strands.length, ''] as const,
    ['Strainer or puller with two grips', 1, ''] as const,
  ];
  return (
    <section aria-label="Replace or move">
      <h3 className="font-semibold">
        The {ROLES[end.role] ?? 'end'} at {say(end.at_m, 'length', units)}
      </h3>
      <p>
        {line.strands.length} strands pull with <Num value={today} q="force" from={PULL} /> today;
        at the coldest with <Num value={end.pull_N} q="force" />. Do it on a warm day.
      </p>
      <h4 className="heading mt-3">Replace the post where it stands</h4>
      <ol className="max-w-[44rem] list-decimal space-y-0.5 pl-5 text-[0.929rem]">
        <li>Switch off and prove it off. Stock out.</li>
        <li>
          Drive a temporary post {say(1.5, 'tape', units)} along the fence, with a stay against the
          pull, or chain the strands to a vehicle that stays braked; never leave it so.
        </li>
        <li>
          Let the strands down from the top, one by one, by tensioner or puller; none is ever cut
          tight.
        </li>
        <li>Take the brace wire off LAST, once no strand pulls. It holds the old post up.</li>
        <li>
          Draw the old post; bore or drive the new one beside the old hole, not in loosened ground,
          or fill the hole in tamped layers first.
        </li>
        <li>Brace it, wait, tie the strands off from the bottom, strain them, jumpers last.</li>
      </ol>
      <h4 className="heading mt-3">Move the end</h4>
      <ol className="max-w-[44rem] list-decimal space-y-0.5 pl-5 text-[0.929rem]">
        <li>
          Build the new end whole, brace and all, and wait until it holds: the old one carries the
          fence meanwhile.
        </li>
        <li>
          Fence made longer: join new wire to each strand once it is let off, no join within{' '}
          {say(5, 'length', units)} of a post or tensioner.
        </li>
        <li>
          Fence made shorter: tie each strand off at the new end first, tight; then let down and cut
          beyond it.
        </li>
        <li>Take the old end away, brace wire last. Bring the offcuts home.</li>
        <li>Strain all strands of the run again; look at its other end.</li>
      </ol>
      <h4 className="heading mt-3 mb-1">An ordinary line post</h4>
      <p className="max-w-[44rem] text-[0.929rem]">
        Nothing is let down: draw its staples or clips, spring the strands aside, set the new one
        beside it. In a dip the strands fly up, on a crest they press down: hold them with a block
        or a bar, and keep hands and face out of their way.
      </p>
      <h4 className="heading mt-4 mb-1">Take along</h4>
      <DataTable
        label="Take along"
        rows={items}
        keyOf={(i) => i[0]}
        columns={[
          { name: 'what', head: true, cell: (i) => i[0] },
          { name: 'how many', n: true, cell: (i) => (i[2] === 'm' ? <Num value={i[1]} q="length" /> : <span className="figure">{Math.ceil(i[1])}</span>) }, // prettier-ignore
        ]}
      />
    </section>
  );
}
