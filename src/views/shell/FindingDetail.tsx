/** What is said of one place that was found, and the mend of it. */
import { useState } from 'react';
import type { Finding } from '../../core/report/schema.js';
import { commitPatch, tell } from '../../session/session.js';
import { look } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { KIND_NAMES } from '../../ui/parts/findingShapes.js';
import { Accept } from './Accept.js';
import { PatchWords } from './PatchWords.js';
import { placeAnew } from './walk.js';

export { MendAll } from './MendAll.js';

const MARKS: Record<string, string> = {
  published: 'published',
  practice: 'common practice',
  memory: 'from memory',
  derived: 'derived',
  assumed: 'assumed',
};

/** Why it is so, what to do, by which source, and its mend. */
export function One({ finding }: { finding: Finding }) {
  const [seen, setSeen] = useState<string | null>(null);
  const { mend } = finding;
  const take = () => {
    commitPatch(mend!.words.toLowerCase(), mend!.patch);
    tell(`${mend!.words}: done`);
    look({ finding: null });
  };
  return (
    <>
      <p>
        <strong>{KIND_NAMES[finding.kind]}.</strong> {finding.why}
      </p>
      <p>{finding.todo}</p>
      <p className="label">
        {MARKS[finding.source.mark] ?? finding.source.mark}: {finding.source.text}
      </p>
      {finding.withheld && <p className="label">{finding.withheld}</p>}
      {finding.trying && <p className="label">A mend is being tried …</p>}
      {mend &&
        (seen === finding.id ? (
          <div className="border-ink bg-panel border p-2">
            <PatchWords patch={mend.patch} />
            <div className="mt-2 flex gap-2">
              <Button strong onClick={take} autoFocus>
                Take it
              </Button>
              <Button onClick={() => setSeen(null)}>Leave it</Button>
            </div>
          </div>
        ) : (
          <Button
            onClick={() =>
              mend.place === undefined ? setSeen(finding.id) : placeAnew([mend.place])
            }
          >
            Mend: {mend.words.toLowerCase()}
          </Button>
        ))}
      <Accept finding={finding} />
    </>
  );
}
