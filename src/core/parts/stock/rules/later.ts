import { outFor, tallEnough } from '../../../posts/kinds.js';
import { recordOf } from '../../../plan/catalogue.js';
import { eachLine, listed, onLine, type Found, type Rule } from '../../../findings/rule.js';
import { broken, judge } from '../../../strands/judge.js';
import { startingMakeUp } from '../../../strands/proposal.js';
import { requirementOf } from '../../../strands/requirement.js';

/** What a line would lack for what it must hold later: said now, so that posts and ends are chosen once. */
export const later: Rule = {
  id: 'later',
  cause: 'Other stock to come',
  step: 'strands',
  kind: 'confirm',
  source: {
    mark: 'derived',
    text: 'The figures of the stock that are to come, on what stands now',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line]): Found[] => {
      const to = line.later;
      if (!to || to.length === 0) return [];
      const { cat, say } = scene;
      const out = to.filter((id) => cat.profiles[id]?.role === 'predator');
      const stock = to.filter((id) => cat.profiles[id]?.role === 'stock');
      const then = { ...line, left: [...line.left, ...stock], keepOut: [...line.keepOut, ...out] };
      const need = requirementOf(then, cat);
      if (!need) return [];
      const strands = startingMakeUp(then, cat);
      const post = tallEnough(line.post, outFor(strands, cat), cat);
      const wrong = broken(judge(line.strands, need, cat));
      const about = (key: string) => wrong.some((m) => m.about === key);
      const top_m = line.strands.at(-1)?.height_m ?? 0;
      const lacks = [
        strands.length > line.strands.length && wrong.length > 0 && `${strands.length} strands instead of ${line.strands.length}`, // prettier-ignore
        about('lowest') && `its lowest strand at ${say.mm(need.lowestMax_m)} or lower`,
        about('top') && `a top at ${say.mm(need.topMin_m)} instead of ${say.mm(top_m)}`,
        (about('gap') || about('upperGap')) && 'closer strands',
        about('lowestLive') && 'its lowest strand live',
        post !== line.post && `longer posts (${recordOf(cat.posts, post).name.toLowerCase()})`,
      ].filter((w) => w !== false);
      if (lacks.length === 0) return [];
      const names = to.map((id) => cat.profiles[id]?.name.toLowerCase() ?? id);
      return [
        {
          key: line.id,
          title: `${line.name} is to hold ${listed(names)} later`,
          why: `It would then want ${listed(lacks)}.`,
          todo: 'Strands are added in an hour; posts and ends are set once: choose those for later now.',
          place: onLine(line),
          badness: lacks.length,
        },
      ];
    }),
};
