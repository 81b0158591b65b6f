import { isOpen } from '../../core/report/open.js';
import type { Finding } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { goTo, look, useView } from '../../session/view.js';
import { FindingMark } from '../../ui/parts/FindingMark.js';
import { useRoving } from '../../ui/parts/roving.js';
import { STEPS, type Step } from '../steps.js';

/** The steps of the work, each with how it stands. @param low along the foot, at the thumb */
export function Rail({ steps = STEPS, low = false }: { steps?: readonly Step[]; low?: boolean }) {
  const step = useView((v) => v.step);
  const id = useSession((s) => s.id);
  const findings = useSession((s) => s.report?.findings);
  const worked = useSession((s) => s.report !== null);
  const begun = useSession((s) => Object.keys(s.plan.lines).length > 0) && worked;
  return (
    <RailList
      steps={steps}
      current={step}
      property={id}
      findings={findings ?? []}
      begun={begun}
      low={low}
      worked={worked}
    />
  );
}

type Listed = Pick<Finding, 'kind' | 'step' | 'accepted'>;

/** How a step stands: nothing to judge yet, so many findings left of the gravest kind, or none. */
export function standingOf(
  step: string,
  findings: readonly Listed[],
  begun: boolean,
): { words: string; left: number; kind: 'stop' | 'mend' | null } | null {
  if (!begun) return null;
  const own = findings.filter((f) => f.kind !== 'confirm' && f.step === step && isOpen(f));
  if (own.length === 0) return { words: 'settled', left: 0, kind: null };
  const kind = own.some((f) => f.kind === 'stop') ? 'stop' : 'mend';
  return { words: `${own.length} open`, left: own.length, kind };
}

const inView = (link: HTMLElement | null): void =>
  link?.scrollIntoView({ block: 'nearest', inline: 'center' });

/** The rail drawn from what it is given. */
export function RailList(props: {
  steps: readonly Step[];
  current: string;
  property: string;
  findings: readonly Listed[];
  begun: boolean;
  low?: boolean;
  /** The first figures are there. */
  worked?: boolean;
}) {
  const { steps, current, property, findings, begun, low = false, worked } = props;
  const roving = useRoving<HTMLElement>('a');
  return (
    <nav
      {...roving}
      aria-label="Steps"
      data-worked={worked || undefined}
      className={`border-rule bg-panel no-print ${low ? 'shrink-0' : 'min-h-0'} ${
        low
          ? 'grid overflow-x-auto border-t pb-[env(safe-area-inset-bottom)]'
          : 'w-[6.9rem] overflow-y-auto py-1'
      }`}
      style={
        low ? { gridTemplateColumns: `repeat(${steps.length}, minmax(3.15rem, 1fr))` } : undefined
      }
    >
      {steps.map((s) => {
        const standing = standingOf(s.id, findings, begun);
        const on = s.id === current;
        return (
          <a
            key={s.id}
            href={`/p/${property}/${s.id}`}
            // As wide as a thumb, they do not all fit: the one that is looked at is in view.
            ref={low && on ? inView : undefined}
            aria-current={on ? 'page' : undefined}
            className={
              low
                ? `flex min-h-[3.4rem] min-w-0 flex-col items-center justify-center border-t-4 text-[0.9rem] ${on ? 'border-ink bg-chosen font-semibold' : 'border-transparent'}`
                : `flex min-h-9 items-center justify-between gap-1 border-l-4 py-1 pr-2 pl-2 ${on ? 'bg-chosen border-ink font-semibold' : 'hover:bg-hover border-transparent'}`
            }
            onClick={(event) => {
              if (event.ctrlKey || event.metaKey || event.shiftKey) return;
              event.preventDefault();
              look({ drawer: false, ...(low ? { sheetSize: 'peek' } : {}) });
              goTo(s.id, property);
            }}
          >
            <span
              className={low ? 'max-w-full truncate [font-stretch:66%]' : 'max-w-full truncate'}
            >
              {s.name}
            </span>
            <Standing standing={standing} />
          </a>
        );
      })}
    </nav>
  );
}

function Standing({ standing }: { standing: ReturnType<typeof standingOf> }) {
  if (!standing)
    return (
      <span className="text-soft text-xs" aria-label="nothing yet">
        ·
      </span>
    );
  if (standing.kind === null)
    return (
      <span className="text-good at-rest text-xs" aria-label="settled">
        ✓
      </span>
    );
  return (
    <span
      className="figure at-rest inline-flex items-center gap-0.5 text-xs"
      aria-label={standing.words}
      role="img"
    >
      <FindingMark kind={standing.kind} size={9} silent />
      {standing.left}
    </span>
  );
}
