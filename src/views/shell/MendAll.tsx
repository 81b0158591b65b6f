/** The mends of all places of one cause, judged together and shown before they are taken. */
import { useState } from 'react';
import type { Together } from '../../core/findings/together.js';
import type { Finding } from '../../core/report/schema.js';
import { commitPatch, mendTogether, tell, useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { PatchWords } from './PatchWords.js';
import { placeAnew } from './walk.js';

export function MendAll({ findings, of }: { findings: readonly Finding[]; of: number }) {
  const [made, setMade] = useState<Together | 'working' | null>(null);
  // What was shown belongs to the plan as it was then.
  const plan = useSession((s) => s.book.plan);
  const [shownFor, setShownFor] = useState(plan);
  const lines = [...new Set(findings.flatMap((f) => f.mend!.place ?? []))];
  const same = new Set(findings.map((f) => f.mend!.words)).size === 1;
  const words = same ? findings[0]!.mend!.words.toLowerCase() : 'mend';
  const count = findings.length === of ? `all ${of}` : `${findings.length} of ${of}`;
  if (lines.length > 0) {
    return (
      <Button strong onClick={() => placeAnew(lines)}>
        Place anew on {lines.length === 1 ? 'this line' : `all ${lines.length} lines`} …
      </Button>
    );
  }
  const work = async () => {
    setMade('working');
    setShownFor(plan);
    setMade(await mendTogether(findings.map((f) => f.id)));
  };
  if (made === 'working') return <p role="status">Judging them together …</p>;
  if (made === null || shownFor !== plan)
    return (
      <Button strong onClick={() => void work()}>
        Mend {count}: {words} …
      </Button>
    );
  if (made.taken.length === 0)
    return <p className="label">They cannot be mended together. {made.left[0]?.why}</p>;
  const take = () => {
    commitPatch(`mended ${made.taken.length}: ${words}`, [...made.patch]);
    tell(`mended ${made.taken.length} at once`);
    look({ finding: null });
  };
  return (
    <div className="border-ink bg-panel max-h-72 space-y-2 overflow-y-auto border p-2">
      <PatchWords patch={made.patch} />
      <p className="label">
        Then {made.gone.length} findings are gone
        {made.came.length > 0 && ` and there is to confirm or mend later: ${made.came.join('; ')}`}.
        {made.left.length > 0 && ` ${made.left.length} left out. ${made.left[0]!.why}`}
      </p>
      <div className="flex gap-2">
        <Button strong onClick={take} autoFocus>
          Take all {made.taken.length}
        </Button>
        <Button onClick={() => setMade(null)}>Leave them</Button>
      </div>
    </div>
  );
}
