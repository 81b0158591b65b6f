import { useEffect, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Summary } from '../../core/summary.js';
import { moneyText } from '../../core/base/locale.js';
import { Sketch } from './Sketch.js';

export interface Row {
  readonly id: string;
  readonly name: string;
  readonly created_at: string;
  readonly revision: number;
}

const KINDS = [
  ['stop', 'Stop'],
  ['mend', 'Mend'],
  ['confirm', 'Confirm'],
] as const;

/** One property: its small map, its length and cost, what is still open. Its figures come when it is seen. */
export function Property({ row }: { row: Row }) {
  const [summary, setSummary] = useState<Summary | 'waiting' | 'none'>('waiting');
  const item = useRef<HTMLLIElement>(null);
  useEffect(() => {
    const seen = new IntersectionObserver(([entry]) => {
      if (!entry!.isIntersecting) return;
      seen.disconnect();
      fetch(`/api/properties/${row.id}/summary`)
        .then(async (answer) => setSummary(answer.ok ? ((await answer.json()) as Summary) : 'none'))
        .catch(() => setSummary('none'));
    });
    seen.observe(item.current!);
    return () => seen.disconnect();
  }, [row.id]);
  const s = typeof summary === 'object' ? summary : null;
  const open = s ? KINDS.filter(([kind]) => s.open[kind] > 0) : [];
  return (
    <li ref={item} className="border-rule border-b">
      <a className="hover:bg-hover flex gap-3 px-1 py-2.5" href={`/p/${row.id}/land`}>
        <Sketch lines={s?.lines ?? []} className="h-16 w-24 shrink-0" />
        <span className="flex min-w-0 flex-col">
          <span className="truncate font-semibold underline underline-offset-4">{row.name}</span>
          {s && s.lines.length > 0 && (
            <span>
              {say(s.ground_m, 'far', s.units)} of fence, {moneyText(s.cost, s.currency, true)}
            </span>
          )}
          {s && s.lines.length === 0 && <span>No line yet.</span>}
          {s && s.lines.length > 0 && (
            <span className="label">
              {open.length === 0
                ? 'nothing is open'
                : open.map(([kind, word]) => `${s.open[kind]} ${word}`).join(', ')}
            </span>
          )}
          {summary === 'none' && <span className="label">Its figures could not be had now.</span>}
          <span className="label">
            {row.revision === 0 ? 'unchanged' : `${row.revision} changes`}, since{' '}
            {row.created_at.slice(0, 10)}
          </span>
        </span>
      </a>
    </li>
  );
}
