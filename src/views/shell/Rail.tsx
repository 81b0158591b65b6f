import { isOpen } from '../../core/report/open.js';
import type { Finding } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { goTo, useView } from '../../session/view.js';
import { STEPS, type Step } from '../steps.js';

/** The steps of the work, each with how many findings are left on it. */
export function Rail({ steps = STEPS }: { steps?: readonly Step[] }) {
  const step = useView((v) => v.step);
  const id = useSession((s) => s.id);
  const findings = useSession((s) => s.report?.findings);
  return <RailList steps={steps} current={step} property={id} findings={findings ?? []} />;
}

/** The rail drawn from what it is given. */
export function RailList(props: {
  steps: readonly Step[];
  current: string;
  property: string;
  findings: readonly Pick<Finding, 'kind' | 'step' | 'accepted'>[];
}) {
  const { steps, current, property, findings } = props;
  return (
    <nav
      aria-label="Steps"
      className="border-rule bg-panel no-print w-[118px] shrink-0 border-r py-2 max-[700px]:flex max-[700px]:w-full max-[700px]:overflow-x-auto max-[700px]:border-r-0 max-[700px]:border-b max-[700px]:py-0"
    >
      {steps.map((s) => {
        const left = findings.filter(
          (f) => f.kind !== 'confirm' && f.step === s.id && isOpen(f),
        ).length;
        return (
          <a
            key={s.id}
            href={`/p/${property}/${s.id}`}
            aria-current={s.id === current ? 'page' : undefined}
            className={`flex items-baseline justify-between gap-2 px-3 py-2 ${s.id === current ? 'bg-chosen border-ink border-l-4 pl-2 font-semibold' : 'hover:bg-chosen'}`}
            onClick={(event) => {
              if (event.ctrlKey || event.metaKey || event.shiftKey) return;
              event.preventDefault();
              goTo(s.id, property);
            }}
          >
            {s.name}
            {left > 0 ? (
              <span className="figure text-xs" aria-label={`${left} findings`}>
                {left}
              </span>
            ) : (
              <span className="text-good text-xs" aria-label="nothing left">
                ✓
              </span>
            )}
          </a>
        );
      })}
    </nav>
  );
}
