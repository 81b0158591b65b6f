/** What hangs together: names in pairs, put into groups. */

/** The group of a name: one of the names that it is tied to, near or far; its own where it is tied to none. */
export function groupsOf(
  pairs: readonly (readonly [a: string, b: string])[],
): (name: string) => string {
  const up = new Map<string, string>();
  const top = (name: string): string => {
    let at = name;
    for (let next = up.get(at); next !== undefined; next = up.get(at)) at = next;
    return at;
  };
  for (const [a, b] of pairs) {
    const [p, q] = [top(a), top(b)];
    if (p !== q) up.set(q, p);
  }
  return top;
}
