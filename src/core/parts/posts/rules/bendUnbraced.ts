import { figure } from '../../../plan/catalogue.js';
import { deflections, stations } from '../../../plan/geometry.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';

/** A vertex that the wire runs round although it turns too sharply for that. */
export const bendUnbraced: Rule = {
  id: 'bend-unbraced',
  cause: 'Wire runs round a sharp bend',
  step: 'section',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'A turn of more than 10 to 15 degrees wants a brace or a stout post',
  },
  check: (scene) => {
    const limit = figure(scene.cat, 'posts.bendLimit');
    return eachLine(scene).flatMap(([line, report]) => {
      const at = stations(line.vertices);
      const turns = deflections(line.vertices);
      return line.vertices.flatMap((v, i) => {
        if (v.kind !== 'bend' || turns[i]! <= limit) return [];
        const run = report.runs.findIndex((r) => at[i]! > r.from_m && at[i]! < r.to_m);
        // Every strand pulls with its own tension in this run.
        const all = line.strands.reduce((sum, { wire }) => {
          return sum + (report.strain.find((s) => s.run === run && s.wire === wire)?.cold_N ?? 0);
        }, 0);
        const pull = 2 * all * Math.sin((turns[i]! * Math.PI) / 360);
        return {
          key: `${line.id}-${v.id}`,
          title: `The wire of ${line.name} runs round a sharp bend`,
          why: `At ${scene.where(line.id, at[i]!)} the line turns ${Math.round(turns[i]!)} degrees and the wire runs on round it: ${scene.say.newtons(pull)} sideways on the coldest night, and tension beyond it is lost to friction. The stout post or brace that Ends proposes holds it; it does not bring the tension back.`,
          todo: 'Make it a corner, with its own ends.',
          place: onLine(line, at[i]!),
          badness: turns[i]!,
          mends: () => [
            {
              words: 'Make it a corner',
              patch: [replace(`/lines/${line.id}/vertices/${i}/kind`, 'corner')],
            },
          ],
        };
      });
    });
  },
};
