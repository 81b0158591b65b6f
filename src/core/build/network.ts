/** What waits for what: an order of the tasks, and the critical path with people without limit. */

/** A task and what it waits for. */
export interface Awaiting {
  readonly id: string;
  readonly hours: number;
  readonly after: readonly { readonly id: string; readonly wait_h: number }[];
}

export interface Times {
  readonly early_start_h: number;
  readonly late_start_h: number;
  /** By how much it may be late without any effect on the end, h. */
  readonly float_h: number;
}

/** The numbers of a list, each after those it comes behind; without those that come behind one another in a circle. */
export function topological(before: readonly (readonly number[])[]): number[] {
  const left = before.map((b) => b.length);
  const next: number[][] = before.map(() => []);
  before.forEach((b, k) => b.forEach((j) => next[j]!.push(k)));
  const order = left.flatMap((n, k) => (n === 0 ? [k] : []));
  for (let i = 0; i < order.length; i++)
    for (const k of next[order[i]!]!) if (--left[k]! === 0) order.push(k);
  return order;
}

/**
 * Numbers of the tasks, each after all that it waits for.
 * @throws RangeError for two of one id, a task that waits for one that is not there, or a circle
 */
export function inOrder(tasks: readonly Pick<Awaiting, 'id' | 'after'>[]): number[] {
  const at = new Map(tasks.map((t, k) => [t.id, k]));
  if (at.size < tasks.length) {
    const twice = tasks.find((t, k) => at.get(t.id) !== k)!;
    throw new RangeError(`tasks: "${twice.id}" is there twice`);
  }
  const before = tasks.map((t) =>
    t.after.map(({ id }) => {
      const k = at.get(id);
      if (k === undefined)
        throw new RangeError(`tasks: "${t.id}" waits for "${id}", which is not there`);
      return k;
    }),
  );
  const order = topological(before);
  if (order.length < tasks.length) {
    const there = new Set(order);
    const stuck = tasks.filter((_, k) => !there.has(k)).map((t) => `"${t.id}"`);
    throw new RangeError(`tasks: ${stuck.slice(0, 3).join(', ')} wait for one another`);
  }
  return order;
}

/**
 * Early and late starts with people without limit [published: critical path method].
 * @throws RangeError as inOrder, and for hours or waits below 0
 */
export function criticalPath(tasks: readonly Awaiting[]): {
  finish_h: number;
  tasks: Record<string, Times>;
  /** Those without float, by their start and then their names. */
  critical: string[];
} {
  for (const t of tasks)
    if (!(t.hours >= 0 && t.after.every((a) => a.wait_h >= 0)))
      throw new RangeError(`tasks: "${t.id}": hours and waits are 0 and more`);
  const order = inOrder(tasks);
  const at = new Map(tasks.map((t, k) => [t.id, k]));
  const early = tasks.map(() => 0);
  for (const k of order)
    for (const { id, wait_h } of tasks[k]!.after) {
      const before = at.get(id)!;
      early[k] = Math.max(early[k]!, early[before]! + tasks[before]!.hours + wait_h);
    }
  const finish_h = Math.max(0, ...tasks.map((t, k) => early[k]! + t.hours));
  const late = tasks.map((t) => finish_h - t.hours);
  for (const k of order.toReversed())
    for (const { id, wait_h } of tasks[k]!.after) {
      const before = at.get(id)!;
      late[before] = Math.min(late[before]!, late[k]! - wait_h - tasks[before]!.hours);
    }
  const float = (k: number) => Math.max(0, late[k]! - early[k]!);
  return {
    finish_h,
    tasks: Object.fromEntries(
      tasks.map((t, k) => [
        t.id,
        { early_start_h: early[k]!, late_start_h: late[k]!, float_h: float(k) },
      ]),
    ),
    critical: order
      .filter((k) => float(k) < 1e-9)
      .sort((a, b) => early[a]! - early[b]! || (tasks[a]!.id < tasks[b]!.id ? -1 : 1))
      .map((k) => tasks[k]!.id),
  };
}
