import { eachLine, onLine, type Rule } from '../../../findings/rule.js';

/** A post where none may stand: in rock, water, a tree's roots, a stretch that says so. */
export const postBarred: Rule = {
  id: 'post-barred',
  cause: 'Post where none may stand',
  step: 'section',
  kind: 'mend',
  source: { mark: 'practice', text: 'Posts keep off rock, drains, tracks, water and roots' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const hits = report.posts.flatMap((p) => {
        const bar = report.barred.find((b) => p.s_m > b.from_m && p.s_m < b.to_m);
        return bar ? [{ p, why: bar.why }] : [];
      });
      const first = hits.find((h) => !h.p.fixed) ?? hits[0];
      if (!first) return [];
      return [
        {
          key: line.id,
          title: `${hits.length === 1 ? 'A post' : `${hits.length} posts`} of ${line.name} where none may stand`,
          why: `The post at ${scene.where(line.id, first.p.s_m)} falls in: ${first.why}.`,
          todo: first.p.fixed
            ? 'Move the corner, bend, gate or pin that stands there.'
            : 'Place the posts around it, or move the line.',
          place: onLine(line, first.p.s_m),
          badness: hits.length,
          ...(first.p.fixed
            ? {}
            : { mends: () => [{ words: 'Place the posts around it', patch: [], place: line.id }] }),
        },
      ];
    }),
};
