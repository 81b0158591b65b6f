import { PanelRightClose, SkipBack, SkipForward, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { causesOf, matching, type Cause } from '../../core/findings/causes.js';
import { isOpen } from '../../core/report/open.js';
import type { Finding } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { FindField } from '../../ui/parts/FindField.js';
import { FindingMark } from '../../ui/parts/FindingMark.js';
import { KIND_NAMES } from '../../ui/parts/findingShapes.js';
import { useRoving } from '../../ui/parts/roving.js';
import { STEPS } from '../steps.js';
import { CauseEntry } from './CauseEntry.js';
import { walkFindings } from './walk.js';

const NONE: readonly Finding[] = [];
const KINDS = ['stop', 'mend', 'confirm'] as const;

/** How many there are of each kind, by mark and figure. */
export function FindingCounts() {
  const findings = useSession((s) => s.report?.findings);
  // Before the first figures nobody knows: none would be said as if it were found.
  const count = (kind: Finding['kind']) =>
    findings?.filter((f) => f.kind === kind && isOpen(f)).length ?? '–';
  const said = KINDS.map((k) => `${count(k)} ${KIND_NAMES[k]}`).join(', ');
  return (
    <span
      className={`inline-flex items-center gap-2.5 ${findings ? '' : 'text-soft'}`}
      aria-label={`Findings: ${findings ? said : 'being worked out'}`}
      role="img"
    >
      {KINDS.map((kind) => (
        <span key={kind} className="inline-flex items-center gap-1" title={KIND_NAMES[kind]}>
          <FindingMark kind={kind} size={13} silent />
          <span className="figure">{count(kind)}</span>
        </span>
      ))}
    </span>
  );
}

/** Beside the view: what is wrong or doubtful, by cause. */
export function Findings() {
  return (
    <section
      aria-label="Findings"
      className="border-rule bg-panel no-print flex h-full flex-col"
      data-findings
    >
      <Head
        end={
          <Button
            className="small"
            aria-label="Fold findings away"
            onClick={() => look({ findingsOpen: false })}
          >
            <PanelRightClose size={15} aria-hidden />
          </Button>
        }
      />
      <FindingList />
    </section>
  );
}

/** The same over the view, where there is no room beside it. */
export function FindingsDrawer() {
  return (
    <section
      aria-label="Findings"
      className="border-ink bg-panel no-print absolute inset-y-0 right-0 z-30 flex w-[min(24rem,92%)] flex-col border-l shadow-xl"
      data-findings
      onKeyDown={(e) => e.key === 'Escape' && look({ drawer: false })}
    >
      <Head
        end={
          <Button
            className="small"
            aria-label="Close findings"
            onClick={() => look({ drawer: false })}
          >
            <X size={16} aria-hidden />
          </Button>
        }
      />
      <FindingList />
    </section>
  );
}

function Head({ end }: { end: React.ReactNode }) {
  return (
    <div className="border-rule flex flex-wrap items-center justify-between gap-x-3 border-b px-3 py-1.5">
      <h2 className="font-semibold">Findings</h2>
      <FindingCounts />
      {end}
    </div>
  );
}

/** The list itself: this step first, the others folded and counted, what is let be apart. */
export function FindingList() {
  const findings = useSession((s) => s.report?.findings) ?? NONE;
  const worked = useSession((s) => s.report !== null);
  const lines = useSession((s) => s.plan.lines);
  const step = useView((v) => v.step);
  const line = useView((v) => v.line);
  const [asked, setAsked] = useState('');
  const [only, setOnly] = useState('');
  const roving = useRoving<HTMLDivElement>('[data-rove]');
  const { here, elsewhere, accepted } = useMemo(() => {
    const own =
      only === ''
        ? findings
        : findings.filter((f) => f.place.line === (only === '*' ? line : only));
    return causesOf(own, { steps: STEPS.map((s) => s.id), step, line });
  }, [findings, step, line, only]);
  const sift = (causes: readonly Cause[]) => matching(causes, asked, (id) => lines[id]?.name ?? '');
  const searching = asked.trim() !== '' || only !== '';
  const named = (id: string) => STEPS.find((s) => s.id === id)?.name ?? id;
  const own = sift(here);
  const others = elsewhere
    .map((e) => ({ ...e, causes: sift(e.causes) }))
    .filter((e) => e.causes.length > 0);
  const letBe = sift(accepted);
  return (
    <>
      <div className="border-rule flex items-center gap-1 border-b px-2 py-1">
        <select
          className="field small w-[7.5rem] min-w-0 flex-1 truncate"
          aria-label="Findings of"
          value={only}
          onChange={(e) => setOnly(e.target.value)}
        >
          <option value="">all lines</option>
          {line && <option value="*">the chosen line</option>}
          {Object.values(lines).map((l) => (
            <option key={l.id} value={l.id}>
              {l.name}
            </option>
          ))}
        </select>
        <FindField
          className="small w-20 min-w-0 flex-1"
          label="Find in the findings"
          hint="find"
          value={asked}
          onChange={setAsked}
        />
        <Button
          className="small"
          aria-label="The finding before"
          title="The finding before (Shift+N)"
          onClick={() => walkFindings(-1)}
        >
          <SkipBack size={14} aria-hidden />
        </Button>
        <Button
          className="small"
          aria-label="The next finding"
          title="The next finding (N)"
          onClick={() => walkFindings(1)}
        >
          <SkipForward size={14} aria-hidden />
        </Button>
      </div>
      <div
        id="findings"
        tabIndex={-1}
        {...roving}
        className="at-rest min-h-0 flex-1 overflow-y-auto"
        role="group"
        aria-label="List of findings"
      >
        {own.length > 0 && <h3 className="label px-3 pt-2">{named(step)}, this step</h3>}
        <Causes causes={own} label={`On ${named(step)}`} />
        {own.length === 0 && (
          <p className="label px-3 pt-2">
            {!worked
              ? 'Rules are asked once the first figures are there.'
              : searching
                ? 'Nothing of that kind on this step.'
                : findings.length === 0
                  ? 'Nothing found.'
                  : `Nothing found on ${named(step)}.`}
          </p>
        )}
        {others.map(({ step: other, causes }) => (
          <Folded key={other} words={named(other)} causes={causes} open={searching || undefined} />
        ))}
        {letBe.length > 0 && <Folded words="Let be" causes={letBe} open={undefined} />}
      </div>
    </>
  );
}

function Causes({ causes, label }: { causes: readonly Cause[]; label: string }) {
  return (
    <ul aria-label={label}>
      {causes.map((cause) => (
        <CauseEntry key={cause.key} cause={cause} />
      ))}
    </ul>
  );
}

/** What belongs to another step: a heading with its count, opened by a press or by what is chosen. */
function Folded({
  words,
  causes,
  open,
}: {
  words: string;
  causes: readonly Cause[];
  open: boolean | undefined;
}) {
  const chosen = useView((v) => v.finding);
  const inIt = causes.some((c) => c.findings.some((f) => f.id === chosen));
  const total = causes.reduce((n, c) => n + c.findings.length, 0);
  return (
    <details className="border-rule border-b" open={open ?? (inIt || undefined)}>
      <summary data-rove className="flex cursor-pointer items-center gap-2 px-3 py-2">
        <span className="flex-1">{words}</span>
        {KINDS.filter((k) => causes.some((c) => c.kind === k)).map((kind) => (
          <FindingMark key={kind} kind={kind} size={12} />
        ))}
        <span className="figure">{total}</span>
      </summary>
      <Causes causes={causes} label={words === 'Let be' ? 'Findings that were let be' : words} />
    </details>
  );
}
