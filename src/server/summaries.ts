/** Summaries of properties, remembered for as long as nothing changes. */

/** Most answers that are remembered. */
const MOST = 200;

/** Remembers the newest summary of each property by its revision. */
export function remembered(make: (id: string) => Promise<string>) {
  const known = new Map<string, { revision: number; text: Promise<string> }>();
  return (id: string, revision: number): Promise<string> => {
    const old = known.get(id);
    if (old?.revision === revision) return old.text;
    const text = make(id);
    known.delete(id);
    known.set(id, { revision, text });
    text.catch(() => known.delete(id));
    if (known.size > MOST) known.delete(known.keys().next().value!);
    return text;
  };
}
