import { bendsOfWire } from '../../../wire/turns.js';
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
    return eachLine(scene).flatMap(([line, report]) =>
      bendsOfWire(line, scene.cat).map(({ vertex, s_m, deg }) => {
        const run = report.runs.findIndex((r) => s_m > r.from_m && s_m < r.to_m);
        // Every strand pulls with its own tension in this run.
        const all = line.strands.reduce((sum, { wire }) => {
          return sum + (report.strain.find((s) => s.run === run && s.wire === wire)?.cold_N ?? 0);
        }, 0);
        const pull = 2 * all * Math.sin((deg * Math.PI) / 360);
        return {
          key: `${line.id}-${line.vertices[vertex]!.id}`,
          title: `The wire of ${line.name} runs round a sharp bend`,
          why: `At ${scene.where(line.id, s_m)} the line turns ${Math.round(deg)} degrees and the wire runs on round it: ${scene.say.newtons(pull)} sideways on the coldest night, and tension beyond it is lost to friction. The stout post or brace that Ends proposes holds it; it does not bring the tension back.`,
          todo: 'Make it a corner, with its own ends.',
          place: onLine(line, s_m),
          badness: deg,
          mends: () => [
            {
              words: 'Make it a corner',
              patch: [replace(`/lines/${line.id}/vertices/${vertex}/kind`, 'corner')],
            },
          ],
        };
      }),
    );
  },
};
