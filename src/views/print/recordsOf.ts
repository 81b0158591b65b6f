/** Plan and records of a property on a page that stands by itself, without a session. */
import { useEffect, useState } from 'react';
import type { Plan } from '../../core/plan/schema.js';
import { keptKind } from '../../session/field.js';
import { standing, type KeptRecord } from '../../session/kept.js';
import { openedProperty } from '../../session/open.js';

/** The records of a kind that stand; null until they are there, and what could be had where the server stops answering. */
export function useRecordsOf<T extends KeptRecord>(id: string, kind: string): T[] | null {
  const [all, setAll] = useState<T[] | null>(null);
  useEffect(() => {
    let here = true;
    void (async () => {
      const records: T[] = [];
      for (let since = 0; ;) {
        const answer = await fetch(`/api/properties/${id}/records/${kind}?since=${since}`);
        if (!answer.ok) break;
        const page = (await answer.json()) as { records: (T & { seq: number })[]; more: boolean };
        records.push(...page.records);
        since = page.records.at(-1)?.seq ?? since;
        if (!page.more) break;
      }
      if (here) setAll(standing(records));
    })().catch(async () => {
      const kept = await keptKind(id, kind);
      if (here) setAll(standing((kept?.records ?? []) as unknown as T[]));
    });
    return () => void (here = false);
  }, [id, kind]);
  return all;
}

/** The saved plan, without its report; null until it is there, or why it is not. */
export function usePlanOf(id: string): Plan | string | null {
  const [plan, setPlan] = useState<Plan | string | null>(null);
  useEffect(() => {
    let here = true;
    openedProperty(id, [])
      .then(
        ({ plan }): Plan | string => plan,
        () => 'The property could not be loaded.',
      )
      .then((found) => here && setPlan(found));
    return () => void (here = false);
  }, [id]);
  return plan;
}
