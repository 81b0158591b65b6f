import { figure } from '../../../plan/catalogue.js';
import { mostUnder } from '../../../strands/under.js';
import { bottomOf } from '../../../wire/bottom.js';
import { eachLine, onLine, placeAnew, type Found, type Rule } from '../../../findings/rule.js';

/** Nobody drives a post to the millimetre; placement uses all of it, and its sums round otherwise than the report's. */
const SLACK_M = 1e-3 + 1e-9;

/** The gap under the lowest strand over hollows and humps of the ground. */
export const clearance: Rule = {
  id: 'clearance',
  cause: 'Hollow under the lowest strand',
  step: 'section',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'The gap under the lowest strand: its height and 120 mm, and nowhere 20 mm more than the animals allow',
  },
  check: (scene) => {
    const least = figure(scene.cat, 'posts.clearanceMin');
    return eachLine(scene).flatMap(([line, report]): Found[] => {
      const gap = report.clearance;
      const lowest = bottomOf(line.strands, scene.cat);
      if (!gap || !lowest) return [];
      const limit = mostUnder(lowest.height_m, report.requirement, scene.cat) + (line.fill_m ?? 0);
      const mends = () => [placeAnew(line)];
      const out: Found[] = [];
      if (gap.high.gap_m > limit + SLACK_M) {
        out.push({
          key: `${line.id}-hollow`,
          title: `A hollow under ${line.name}`,
          why: `At ${scene.where(line.id, gap.high.at_m)} the lowest strand hangs ${scene.say.mm(gap.high.gap_m)} over the ground; more than ${scene.say.mm(limit)} lets stock under.`,
          todo: 'A post in the hollow, a dropper, or fill.',
          place: onLine(line, gap.high.at_m),
          badness: gap.high.gap_m - limit,
          mends,
        });
      }
      if (gap.low.gap_m < Math.min(least, lowest.height_m) - SLACK_M) {
        out.push({
          key: `${line.id}-hump`,
          cause: 'Ground reaches the lowest strand',
          title: `The ground reaches the lowest strand of ${line.name}`,
          why: `At ${scene.where(line.id, gap.low.at_m)} the lowest strand is ${scene.say.mm(gap.low.gap_m)} over the ground; under ${scene.say.mm(least)} it lies in the grass or the soil and is shorted.`,
          todo: 'A post on the hump, or take the hump off.',
          place: onLine(line, gap.low.at_m),
          badness: Math.min(least, lowest.height_m) - gap.low.gap_m,
          mends,
        });
      }
      return out;
    });
  },
};
