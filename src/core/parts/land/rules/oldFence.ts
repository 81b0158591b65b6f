import { figure } from '../../../plan/catalogue.js';
import { crossingsOf, stretchesNear, thingsOf } from '../../../land/things.js';
import { withCrossings } from '../../../wiring/crossings.js';
import { onLine, type Found, type Rule } from '../../../findings/rule.js';

/** A sleeve this near to a crossing is its own, m. */
const AT_CROSSING = 1.5;

/** Live wire that crosses or follows an old fence. */
export const oldFence: Rule = {
  id: 'old-fence',
  cause: 'Fence meets an old one',
  step: 'land',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'A live wire that crosses barbed wire wants an insulating sleeve; 150 mm beside it [memory]',
  },
  check: (scene) => {
    const least = figure(scene.cat, 'posts.gap.barbed');
    return thingsOf(scene.plan, 'oldFence').flatMap((old) =>
      Object.values(scene.plan.lines).flatMap((line): Found[] => {
        const live = line.strands.filter((s) => s.duty === 'live').length;
        if (live === 0) return [];
        const crossings = crossingsOf(line, old);
        const sleeved = (s: number) =>
          line.crossings?.some((c) => c.kind === 'sleeve' && Math.abs(c.at_m - s) <= AT_CROSSING);
        const bare = crossings.filter((x) => !sleeved(x.s));
        const out: Found[] = [];
        if (bare.length > 0)
          out.push({
            key: `${line.id}-${old.id}-cross`,
            title: `${line.name} crosses ${old.name}`,
            why: `${bare.length === 1 ? 'One crossing' : `${bare.length} crossings`} of ${live} live strands without sleeves: ${bare.length * live} insulating sleeves on the old ${old.barbed ? 'barbed wire, whose barbs keep them in place' : 'wire'}, the first at ${scene.where(line.id, bare[0]!.s)}.`,
            todo: 'Sleeve each crossing, or take the old fence down there. Never let a live strand touch it.',
            place: onLine(line, bare[0]!.s),
            badness: bare.length * live,
            mends: () => [
              {
                words: `Sleeves on ${old.name} where the live strands cross it`,
                patch: [
                  withCrossings(line, bare.map(({ s }) => ({ at_m: s, kind: 'sleeve' }))), // prettier-ignore
                ],
              },
            ],
          });
        const beside = stretchesNear(line, old, least).filter(
          ([a, b]) =>
            b - a > 4 * least && !crossings.some((x) => x.s >= a && x.s <= b && b - a < 2),
        );
        if (beside.length > 0)
          out.push({
            key: `${line.id}-${old.id}-beside`,
            kind: old.barbed ? 'stop' : 'mend',
            cause: 'Fence runs against an old one',
            title: `${line.name} runs against ${old.name}`,
            why: `From ${scene.where(line.id, beside[0]![0])} the live strands stand within ${scene.say.mm(least)} of the old ${old.barbed ? 'barbed wire: it becomes live, and barbed wire must never be' : 'netting: it shorts them'}.`,
            todo: 'Set the line off to one side, or take the old fence down.',
            place: onLine(line, ...beside[0]!),
          });
        return out;
      }),
    );
  },
};
