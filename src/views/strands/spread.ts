/**
 * Places for labels, as near to their own as they can be without lying on one another.
 * @param wanted where each would stand, rising
 * @param least distance between two
 */
export function spread(wanted: readonly number[], least: number): number[] {
  // Runs of labels that touch move together, about the mean of what they want.
  const runs: { mean: number; count: number }[] = [];
  for (const y of wanted) {
    let run = { mean: y, count: 1 };
    for (let last = runs.at(-1); last; last = runs.at(-1)) {
      if (run.mean - last.mean >= ((run.count + last.count) / 2) * least) break;
      const count = run.count + last.count;
      run = { mean: (run.mean * run.count + last.mean * last.count) / count, count };
      runs.pop();
    }
    runs.push(run);
  }
  return runs.flatMap(({ mean, count }) =>
    Array.from({ length: count }, (_, k) => mean + (k - (count - 1) / 2) * least),
  );
}
