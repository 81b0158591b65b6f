import { PanelRightClose, PanelRightOpen } from 'lucide-react';
import { lazy, memo, Suspense, useEffect, useRef, useState } from 'react';
import { isOpen } from '../../core/report/open.js';
import type { Finding } from '../../core/report/schema.js';
import { FindingMark, KIND_NAMES } from '../../ui/parts/FindingMark.js';
import { commitPatch, useSession } from '../../session/session.js';
import { startPlacing } from '../../session/placing.js';
import { chooseLine, goTo, look, useView } from '../../session/view.js';
import { PatchWords } from './PatchWords.js';
import { Button } from '../../ui/parts/Button.js';

const MARKS: Record<string, string> = {
  published: 'published',
  practice: 'practice',
  memory: 'from memory',
  derived: 'derived',
  assumed: 'assumed',
};

const Accept = lazy(() => import('./Accept.js').then((m) => ({ default: m.Accept })));

/** Findings that are listed at once. */
const FIRST = 150;

/** What is wrong or doubtful, worst first; each points at its place and may be mended. */
export function Findings() {
  const found = useSession((s) => s.report?.findings) ?? [];
  const findings = found.filter(isOpen);
  const letBe = found.filter((f) => !isOpen(f));
  const open = useView((v) => v.findingsOpen);
  const chosen = useView((v) => v.finding);
  const [all, setAll] = useState(false);
  // A station has a thousand of them: the worst come first, the rest when they are asked for.
  const shown = findings.filter((f, i) => all || i < FIRST || f.id === chosen);
  const count = (kind: Finding['kind']) => findings.filter((f) => f.kind === kind).length;
  if (!open) {
    return (
      <aside aria-label="Findings" className="border-rule bg-panel no-print border-l p-1">
        <Button aria-label="Show findings" onClick={() => look({ findingsOpen: true })}>
          <PanelRightOpen size={16} aria-hidden />
        </Button>
      </aside>
    );
  }
  return (
    <aside
      aria-label="Findings"
      className="border-rule bg-panel no-print flex w-[284px] shrink-0 flex-col border-l max-[700px]:w-full"
    >
      <div className="border-rule flex items-center justify-between border-b px-3 py-1.5">
        <h2 className="font-semibold">Findings</h2>
        <span className="inline-flex items-center gap-3 text-sm">
          {(['stop', 'mend', 'confirm'] as const).map((kind) => (
            <span key={kind} className="inline-flex items-center gap-1" title={KIND_NAMES[kind]}>
              <FindingMark kind={kind} size={13} />
              <span className="figure">{count(kind)}</span>
            </span>
          ))}
          <Button
            className="!min-h-7 !px-1.5"
            aria-label="Fold findings away"
            onClick={() => look({ findingsOpen: false })}
          >
            <PanelRightClose size={15} aria-hidden />
          </Button>
        </span>
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto" tabIndex={0} aria-label="List of findings">
        {shown.map((f) => (
          <FindingRow key={f.id} finding={f} />
        ))}
        {shown.length < findings.length && (
          <li className="p-3">
            <Button onClick={() => setAll(true)}>{findings.length - shown.length} more</Button>
          </li>
        )}
        {findings.length === 0 && <li className="label p-3">Nothing found.</li>}
        {letBe.length > 0 && (
          <li>
            <details open={letBe.some((f) => f.id === chosen) || undefined}>
              <summary className="label cursor-pointer px-3 py-2">{letBe.length} let be</summary>
              <ul aria-label="Findings that were let be">
                {letBe.map((f) => (
                  <FindingRow key={f.id} finding={f} />
                ))}
              </ul>
            </details>
          </li>
        )}
      </ul>
    </aside>
  );
}

/** A placement is worked out first; the Section shows it before it is taken. */
function placeAnew(line: string): void {
  chooseLine(line);
  goTo('section', useSession.getState().id);
  void startPlacing([line]);
}

const FindingRow = memo(function FindingRow({ finding }: { finding: Finding }) {
  const chosen = useView((v) => v.finding === finding.id);
  const [seen, setSeen] = useState(false);
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: 'nearest' });
    else setSeen(false);
  }, [chosen]);
  const point = () =>
    look({
      finding: chosen ? null : finding.id,
      ...(finding.place.line
        ? {
            line: finding.place.line,
            vertex: null,
            thing: null,
            cursor: finding.place.from_m ?? null,
          }
        : {}),
    });
  const mend = () => {
    commitPatch(finding.mend!.words.toLowerCase(), finding.mend!.patch);
    look({ finding: null });
  };
  return (
    <li
      ref={row}
      className={`border-rule border-b ${chosen ? 'bg-chosen' : ''}`}
      data-finding={finding.rule}
    >
      <button
        className="flex w-full cursor-pointer items-start gap-2 px-3 py-2 text-left"
        aria-expanded={chosen}
        onClick={point}
      >
        <span className="mt-0.5">
          <FindingMark kind={finding.kind} />
        </span>
        <span>{finding.title}</span>
      </button>
      {chosen && (
        <div className="space-y-1.5 px-3 pb-3 pl-8 text-[13px]">
          <p>{finding.why}</p>
          <p>{finding.todo}</p>
          <p className="label">
            {MARKS[finding.source.mark] ?? finding.source.mark}: {finding.source.text}
          </p>
          {finding.withheld && <p className="label">{finding.withheld}</p>}
          {finding.trying && <p className="label">A mend is being tried …</p>}
          {finding.mend &&
            (seen ? (
              <div className="border-ink border p-2">
                <PatchWords patch={finding.mend.patch} />
                <div className="mt-2 flex gap-2">
                  <Button strong onClick={mend} autoFocus>
                    Take it
                  </Button>
                  <Button onClick={() => setSeen(false)}>Leave it</Button>
                </div>
              </div>
            ) : (
              <Button
                onClick={() =>
                  finding.mend!.place === undefined ? setSeen(true) : placeAnew(finding.mend!.place)
                }
              >
                Mend: {finding.mend.words.toLowerCase()}
              </Button>
            ))}
          <Suspense fallback={null}>
            <Accept finding={finding} />
          </Suspense>
        </div>
      )}
    </li>
  );
});
