/** One cause: its places, why and what to do, and the mend of all that are alike. */
import { lazy, memo, Suspense, useEffect, useRef, useState } from 'react';
import type { Cause } from '../../core/findings/causes.js';
import type { Finding } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { FindingMark } from '../../ui/parts/FindingMark.js';
import { pointAt } from './walk.js';

/** What is said of one place is fetched when the first is looked at. */
const One = lazy(() => import('./FindingDetail.js').then((m) => ({ default: m.One })));
const MendAll = lazy(() => import('./FindingDetail.js').then((m) => ({ default: m.MendAll })));

/** Places that are listed before the rest is asked for. */
const FIRST = 12;

export const CauseEntry = memo(function CauseEntry({ cause }: { cause: Cause }) {
  const chosen = useView((v) => v.finding);
  const lines = useSession((s) => s.plan.lines);
  const [all, setAll] = useState(false);
  const { findings, kind, words } = cause;
  const at = findings.findIndex((f) => f.id === chosen);
  const open = at >= 0;
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (open) row.current?.scrollIntoView({ block: 'nearest' });
  }, [open, at]);
  const nameOf = (f: Finding) => (f.place.line ? (lines[f.place.line]?.name ?? '') : f.title);
  const names = [...new Set(findings.map(nameOf))];
  const alike = findings.filter((f) => f.mend);
  return (
    <li
      ref={row}
      className={`border-rule border-b ${open ? 'bg-chosen' : ''}`}
      data-cause={findings[0]!.rule}
      data-finding={findings[0]!.rule}
    >
      <button
        data-rove
        className="flex w-full cursor-pointer items-start gap-2 px-3 py-2 text-left"
        aria-expanded={open}
        onClick={() => pointAt(open ? null : findings[0]!)}
      >
        <span className="mt-0.5">
          <FindingMark kind={kind} />
        </span>
        <span className="min-w-0 flex-1">
          {findings.length === 1 ? (
            <bdi>{findings[0]!.title}</bdi>
          ) : (
            <>
              {words}
              <span className="label block truncate">
                <bdi>{names.slice(0, 3).join(', ')}</bdi>
                {names.length > 3 && ` and ${names.length - 3} more`}
              </span>
            </>
          )}
        </span>
        {findings.length > 1 && <span className="figure">{findings.length}</span>}
      </button>
      {open && (
        <div className="space-y-1.5 px-3 pb-3 pl-8">
          {findings.length > 1 && (
            <ul aria-label="Places" className="border-rule border-l-2">
              {findings.slice(0, all ? undefined : Math.max(FIRST, at + 1)).map((f) => (
                <li key={f.id}>
                  <button
                    data-rove
                    className={`block w-full cursor-pointer px-2 py-1 text-left ${f.id === chosen ? 'font-semibold' : 'hover:underline'}`}
                    aria-current={f.id === chosen ? 'true' : undefined}
                    onClick={() => pointAt(f)}
                  >
                    <bdi>{f.title}</bdi>
                  </button>
                </li>
              ))}
              {!all && findings.length > Math.max(FIRST, at + 1) && (
                <li>
                  <button
                    className="label cursor-pointer px-2 underline"
                    onClick={() => setAll(true)}
                  >
                    {findings.length - Math.max(FIRST, at + 1)} more
                  </button>
                </li>
              )}
            </ul>
          )}
          <Suspense fallback={null}>
            {alike.length > 1 && <MendAll findings={alike} of={findings.length} />}
            <One finding={findings[at]!} />
          </Suspense>
        </div>
      )}
    </li>
  );
});
