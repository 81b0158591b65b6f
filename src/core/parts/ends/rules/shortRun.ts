import { stations } from '../../../plan/geometry.js';
import { eachLine, onLine, type Found, type Rule } from '../../../findings/rule.js';

/** Places nearer than this are one, m. */
const SAME = 0.05;

/** A run between two ends that has no room for the brace of each. */
export const shortRun: Rule = {
  id: 'short-run',
  cause: 'Run too short for two braces',
  step: 'ends',
  kind: 'confirm',
  source: {
    mark: 'derived',
    text: 'Two rails and a bay between them, at the length of rail that is usual here',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      // Nothing new is strained where all wire is old.
      if (line.standing || line.strands.every((s) => s.kept)) return [];
      return report.runs.flatMap((run): Found[] => {
        const begins = report.ends.find((e) => e.side === 'after' && Math.abs(e.at_m - run.from_m) < SAME); // prettier-ignore
        const ends = report.ends.find((e) => e.side === 'before' && Math.abs(e.at_m - run.to_m) < SAME); // prettier-ignore
        if (!begins?.shared || !ends) return [];
        const gate = [begins, ends].some((e) => e.role === 'gate');
        return [
          {
            key: `${line.id}-${whatBegins(scene, line.id, run.from_m)}`,
            title: `A run of ${line.name} is too short for two braces`,
            why: `${scene.say.along(run.ground_m)} from ${scene.where(line.id, run.from_m)}: no room for a rail at each end and a bay between them.`,
            todo: `${begins.second ? 'One brace post between the two ends serves both ways' : 'One rail between the two posts serves both ways'}, its diagonal wires crossed: that is counted${gate ? '; or hang the gate on the end post, or move it further from the corner' : '; or move one of the ends'}.`,
            place: onLine(line, run.from_m, run.to_m),
            badness: 1 / run.ground_m,
          },
        ];
      });
    }),
};

/** What begins a run, a vertex or a gate, by its id. */
function whatBegins({ plan }: Parameters<Rule['check']>[0], id: string, s: number): string {
  const line = plan.lines[id]!;
  const at = stations(line.vertices);
  const vertex = line.vertices.find((_, i) => Math.abs(at[i]! - s) < SAME);
  const gate = Object.values(plan.gates).find((g) => g.line === id && Math.abs(g.at_m + g.width_m / 2 - s) < SAME); // prettier-ignore
  return vertex?.id ?? gate?.id ?? '';
}
