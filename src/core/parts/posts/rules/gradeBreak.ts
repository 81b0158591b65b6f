import { figure, recordOf, usual } from '../../../plan/catalogue.js';
import type { PatchStep } from '../../../plan/schema.js';
import { eachLine, onLine, replace, type Rule } from '../../../findings/rule.js';
import { outFor, tallEnough } from '../../../posts/kinds.js';
import { gradeBreak, isStout } from '../../../posts/layout.js';

/** A light post where the grade breaks: the wire leans on it, down on a crest, up in a dip. */
export const gradeBreaks: Rule = {
  id: 'grade-break',
  cause: 'Light post where the grade breaks',
  step: 'section',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'A sharp break of grade is a bend in the vertical and wants a stout post',
  },
  check: (scene) => {
    const limit = figure(scene.cat, 'posts.breakLimit');
    return eachLine(scene).flatMap(([line, { posts }]) => {
      if (line.standing) return [];
      const light = posts.flatMap((post, i) => {
        const [a, c] = [posts[i - 1], posts[i + 1]];
        if (!a || !c || post.role !== 'line' || isStout(post.kind, scene.cat)) return [];
        const deg = gradeBreak(a, post, c);
        return deg > limit ? [{ post, deg }] : [];
      });
      if (light.length === 0) return [];
      const worst = light.reduce((x, y) => (y.deg > x.deg ? y : x));
      const stout = tallEnough(usual('bendPost'), outFor(line.strands, scene.cat), scene.cat);
      const patch = light.flatMap(({ post }): PatchStep[] =>
        (['placed', 'pins'] as const).flatMap((list) => {
          const k = line[list]?.findIndex((p) => Math.abs(p.at_m - post.s_m) < 0.05) ?? -1;
          return k < 0 ? [] : [replace(`/lines/${line.id}/${list}/${k}/kind`, stout)];
        }),
      );
      return [
        {
          key: line.id,
          title: `${light.length === 1 ? 'A light post' : `${light.length} light posts`} of ${line.name} where the grade breaks`,
          why: `At ${scene.where(line.id, worst.post.s_m)} the grade breaks by ${Math.round(worst.deg)} degrees: the strands lean on a ${recordOf(scene.cat.posts, worst.post.kind).name.toLowerCase()} post.`,
          todo: 'A stout post there, or a brace.',
          place: onLine(line, worst.post.s_m),
          badness: worst.deg,
          mends: () => (patch.length > 0 ? [{ words: 'Put stout posts there', patch }] : []),
        },
      ];
    });
  },
};
