import type { Finding } from '../../core/report/schema.js';
import { useSession } from '../../ui/session/session.js';
import { goTo, STEPS, useView, type Step } from '../../ui/session/view.js';

/** Which step a finding is mended on. */
const STEP_OF: Record<string, Step> = {
  'barbed-live': 'strands',
  'barbed-horses': 'strands',
  'near-barbed': 'strands',
  'live-uninsulated': 'strands',
  'does-not-hold': 'strands',
  'gap-too-wide': 'strands',
  'gap-opens': 'strands',
  'top-unseen': 'strands',
  'step-over': 'strands',
  'panel-live': 'strands',
  'bare-on-steel': 'strands',
  'left-design': 'strands',
  'post-lifts': 'section',
  'post-barred': 'section',
  clearance: 'section',
  'bays-too-long': 'section',
  'bend-unbraced': 'section',
  'cold-limit': 'strain',
  'hot-sag': 'strain',
  'no-tensioner': 'strain',
  'over-limit': 'power',
  'below-aim': 'power',
  'earth-test': 'power',
  'rods-close': 'power',
  'earth-near': 'power',
  'mains-far': 'power',
  feeding: 'power',
};
export const stepOf = (f: Finding): Step => STEP_OF[f.rule] ?? 'land';

/** The steps of the work, each with how many findings are left on it. */
export function Rail() {
  const step = useView((v) => v.step);
  const id = useSession((s) => s.id);
  const findings = useSession((s) => s.report?.findings);
  const open = (s: Step) =>
    findings?.filter((f) => f.kind !== 'confirm' && stepOf(f) === s).length ?? 0;
  return (
    <nav
      aria-label="Steps"
      className="border-rule bg-panel no-print w-[118px] shrink-0 border-r py-2 max-[700px]:flex max-[700px]:w-full max-[700px]:overflow-x-auto max-[700px]:border-r-0 max-[700px]:border-b max-[700px]:py-0"
    >
      {STEPS.map((s) => {
        const left = open(s.id);
        return (
          <a
            key={s.id}
            href={`/p/${id}/${s.id}`}
            aria-current={s.id === step ? 'page' : undefined}
            className={`flex items-baseline justify-between gap-2 px-3 py-2 ${s.id === step ? 'bg-chosen border-ink border-l-4 pl-2 font-semibold' : 'hover:bg-chosen'}`}
            onClick={(event) => {
              if (event.ctrlKey || event.metaKey || event.shiftKey) return;
              event.preventDefault();
              goTo(s.id, id);
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
