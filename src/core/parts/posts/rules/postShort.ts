import { recordOf } from '../../../plan/catalogue.js';
import { longEnough, outFor, standsOut, tallEnough } from '../../../posts/kinds.js';
import type { PatchStep } from '../../../plan/schema.js';
import { eachLine, listed, onLine, replace, type Rule } from '../../../findings/rule.js';

/** Posts that do not stand out of the ground as far as the strands go up. */
export const postShort: Rule = {
  id: 'post-short',
  cause: 'Posts too short',
  step: 'section',
  kind: 'stop',
  source: {
    mark: 'practice',
    text: 'A post stands out of the ground by the top strand and 50 mm: its length less its depth',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const out = outFor(line.strands, scene.cat);
      const short = report.posts.filter((p) => !longEnough(p.kind, out, scene.cat));
      if (short.length === 0) return [];
      const kinds = [...new Set(short.map((p) => p.kind))].map((k) => recordOf(scene.cat.posts, k));
      const lowest = kinds.reduce((a, b) => (standsOut(b) < standsOut(a) ? b : a));
      // Wherever the plan names a kind that is too short, the shortest that does.
      const patch: PatchStep[] = [];
      const put = (path: string, kind: string | null) => {
        if (kind === null || longEnough(kind, out, scene.cat)) return;
        patch.push(replace(path, tallEnough(kind, out, scene.cat)));
      };
      put(`/lines/${line.id}/post`, line.post);
      for (const list of ['pins', 'placed'] as const)
        line[list]?.forEach((p, i) => put(`/lines/${line.id}/${list}/${i}/kind`, p.kind));
      const taller = [...new Set(patch.map((step) => step.value as string))].map((k) =>
        recordOf(scene.cat.posts, k).name.toLowerCase(),
      );
      return [
        {
          key: line.id,
          title: `Posts of ${line.name} are too short`,
          why: `${short.length === 1 ? 'One stands' : `${short.length} stand`} out by ${scene.say.mm(standsOut(lowest))} (${lowest.name.toLowerCase()}, ${scene.say.mm(lowest.embedment_m)} in the ground); the top strand and a little wood above it want ${scene.say.mm(out)}.`,
          todo: 'Longer posts, or a lower top.',
          place: onLine(line, short[0]!.s_m),
          badness: out - standsOut(lowest),
          mends: () => (patch.length ? [{ words: `Take ${listed(taller)}`, patch }] : []),
        },
      ];
    }),
};
