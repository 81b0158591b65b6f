/** Names put into groups, two at a time. */
export class Groups {
  private readonly up = new Map<string, string>();

  /** The name that stands for the group of this one; itself where it was joined to none. */
  of(name: string): string {
    let at = name;
    for (let next = this.up.get(at); next !== undefined; next = this.up.get(at)) at = next;
    return at;
  }

  join(a: string, b: string): void {
    const [p, q] = [this.of(a), this.of(b)];
    if (p !== q) this.up.set(p, q);
  }
}

/** What comes most often in a list, the first of equals; undefined of none. */
export function mostCommon(list: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const one of list) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}
