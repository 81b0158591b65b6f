import { figure } from '../../../plan/catalogue.js';
import type { Line } from '../../../plan/schema.js';
import type { LineReport, Requirement, RuleMark } from '../../../report/schema.js';
import { broken, worstOver } from '../../../strands/judge.js';
import { longestBayThatHolds, pulledIn } from '../../../strands/opening.js';
import { tighterProposal } from '../../../strands/proposal.js';
import {
  eachLine,
  hungOn,
  onLine,
  placeAnew,
  replace,
  type Mend,
  type Rule,
  type LineScene,
} from '../../../findings/rule.js';

/** A gap that a push at mid-bay opens wider than a fence that is known to hold. */
export const gapOpens: Rule = {
  id: 'gap-opens',
  cause: 'Stock push strands apart',
  step: 'strands',
  kind: 'mend',
  source: {
    mark: 'derived',
    text: 'Opening under the usual push, against that of the longest bay which practice says holds; silent within a tenth',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const need = report.requirement;
      const worst = worstOver(broken(report.marks).filter((m) => m.about === 'opening'));
      if (!need || !worst) return [];
      const who = scene.cat.profiles[worst.profile!]!.name;
      const [a, b] = worst.strands.map((i) => line.strands[i]!);
      const nominal = b!.height_m - a!.height_m;
      const over = worst.value - worst.limit;
      return [
        {
          key: line.id,
          title: `${who} push ${line.name} apart`,
          why: `A push of ${scene.say.newtons(figure(scene.cat, 'wire.pushForce'))} at mid-bay opens the gap of ${scene.say.mm(nominal)} to ${scene.say.mm(worst.value)} on the hottest day, ${scene.say.mm(over)} more than a fence for ${who.toLowerCase()} that is known to hold.`,
          todo: 'Posts closer together, more tension, or more strands: Strands shows what each is worth.',
          place: onLine(line),
          badness: worst.value,
          mends: () => waysOf(line, report, need, worst, scene),
        },
      ];
    }),
};

/** More tension, shorter bays, strands closer together: cheapest first. */
function waysOf(
  line: Line,
  report: LineReport,
  need: Requirement,
  worst: RuleMark,
  { cat, say }: LineScene,
): Mend[] {
  const [a, b] = worst.strands.map((i) => line.strands[i]!);
  const nominal = b!.height_m - a!.height_m;
  const pair = [a!, b!].map((s) => pulledIn(report.strain, s.wire, cat));
  const bay = Math.floor(longestBayThatHolds(worst.limit - nominal, pair, cat) * 10) / 10;
  const longest = Math.max(...report.stretches.map((s) => s.bay_m));
  const tighter = Object.entries(cat.schools)
    .filter(([, s]) => s.tension_N > cat.schools[line.school]!.tension_N)
    .sort((x, y) => x[1].tension_N - y[1].tension_N)
    .map(([id, s]): Mend => ({
      words: `Set it ${s.name.toLowerCase()}`,
      patch: [replace(`/lines/${line.id}/school`, id)],
    }));
  const shorter: Mend[] =
    !line.placed && bay >= 1.5 && bay < longest
      ? [
          {
            words: `Bays of ${say.along(bay)} at most`,
            patch: [replace(`/lines/${line.id}/maxBay_m`, bay)],
          },
        ]
      : [];
  const drawnIn = tighterProposal(need, worst.value - worst.limit + 0.01);
  const closer: Mend[] =
    drawnIn && !line.strands.some((s) => s.kept)
      ? [
          {
            words: 'Strands closer together',
            patch: [replace(`/lines/${line.id}/strands`, hungOn(line, drawnIn, need, cat))],
          },
        ]
      : [];
  return [...tighter, ...shorter, ...closer, ...(line.placed ? [placeAnew(line)] : [])];
}
