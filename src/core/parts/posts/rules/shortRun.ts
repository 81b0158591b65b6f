import { figure } from '../../../plan/catalogue.js';
import { stations } from '../../../plan/geometry.js';
import { bracesIn, roomForTwo } from '../../../posts/braces.js';
import { eachLine, onLine, type Found, type Rule } from '../../../findings/rule.js';

/** Places nearer than this are one, m. */
const SAME = 0.05;

/** A run between two ends that has no room for the brace of each. */
export const shortRun: Rule = {
  id: 'short-run',
  cause: 'Run too short for two braces',
  step: 'section',
  kind: 'confirm',
  source: {
    mark: 'derived',
    text: 'Two rails and a bay between them, at the length of rail that is usual here',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      // Nothing new is strained where all wire is old.
      if (line.standing || line.strands.every((s) => s.kept)) return [];
      const at = stations(line.vertices);
      const gates = Object.values(scene.plan.gates).filter((g) => g.line === line.id);
      /** What begins a run: a vertex or a gate, by its id. */
      const begins = (s: number): string =>
        line.vertices.find((_, i) => Math.abs(at[i]! - s) < SAME)?.id ??
        gates.find((g) => Math.abs(g.at_m + g.width_m / 2 - s) < SAME)?.id ??
        '';
      return report.runs.flatMap((run): Found[] => {
        if (bracesIn(run.ground_m, scene.cat) === 2) return [];
        const rail = figure(scene.cat, 'end.offsetPost');
        const atGate = gates.some((g) => [g.at_m - g.width_m / 2, g.at_m + g.width_m / 2].some((s) => Math.abs(s - run.from_m) < SAME || Math.abs(s - run.to_m) < SAME)); // prettier-ignore
        return [
          {
            key: `${line.id}-${begins(run.from_m)}`,
            title: `A run of ${line.name} is too short for two braces`,
            why: `${scene.say.along(run.ground_m)} from ${scene.where(line.id, run.from_m)}; a brace at each end wants ${scene.say.along(roomForTwo(scene.cat))}, with rails of ${scene.say.along(rail)}.`,
            todo: `One brace between the two posts that serves both ways, its diagonal wire crossed, is counted${atGate ? '; or hang the gate on the end post, or move it further from the corner' : '; or move one of the ends'}.`,
            place: onLine(line, run.from_m, run.to_m),
            badness: roomForTwo(scene.cat) - run.ground_m,
          },
        ];
      });
    }),
};
