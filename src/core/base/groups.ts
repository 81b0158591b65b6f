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
