import { frostOf } from '../../../ends/along.js';
import { doubtsOf, type Doubt } from '../../../ends/setting.js';
import { figure, recordOf } from '../../../plan/catalogue.js';
import type { Line } from '../../../plan/schema.js';
import type { EndReport } from '../../../report/schema.js';
import type { Found, Rule, LineScene } from '../../../findings/rule.js';
import { atEnd, eachEnd, endPatch, WORDS } from './ends.js';

const what = (e: EndReport) => WORDS[e.role] ?? 'end';

/** One end for each place: both sides of a corner share its post. */
function* eachPlace(scene: LineScene): Generator<readonly [Line, EndReport]> {
  let last: string | null = null;
  for (const [line, e] of eachEnd(scene)) {
    const key = `${line.id} ${e.at_m}`;
    if (key !== last) yield [line, e];
    last = key;
  }
}

const DOUBTS: Readonly<Record<Exclude<Doubt, 'timber'>, readonly [cause: string, why: string]>> = {
  shrinks: ['concrete', 'concrete comes loose in clay that shrinks as it dries'],
  stones: ['driven', 'posts cannot be driven into this ground: stones turn them or split them'],
  noDriver: ['driver', 'there is no post driver here'],
  frost: ['frost', 'the ground freezes deeper than the post stands: it lifts it year by year'],
  wanders: ['gravel', 'gravel wanders off into sand'],
};

const doubts = ({ plan, cat }: LineScene, e: EndReport): Doubt[] =>
  doubtsOf(e.setting, { soil: recordOf(cat.soils, e.soil), steel: recordOf(cat.posts, e.post).conducts, frost_m: frostOf(plan, cat), noDriver: !!plan.noDriver }, e.depth_m); // prettier-ignore

/** Concrete round timber: it holds water there. */
export const concreteTimber: Rule = {
  id: 'concrete-timber',
  cause: 'Concrete on timber',
  step: 'ends',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'Concrete holds water against timber; disputed, and much done',
  },
  check: (scene) =>
    [...eachPlace(scene)].flatMap(([line, e]): Found[] =>
      !doubts(scene, e).includes('timber')
        ? []
        : [
            atEnd(scene, line, e, {
              title: `Timber in concrete at the ${what(e)} of ${line.name}`,
              why: `At ${scene.where(line.id, e.at_m)} concrete would hold water against the post, and it rots where it matters.`,
              todo: `Set it another way; if it must be, stop ${scene.say.mm(figure(scene.cat, 'ends.topBelow'))} below the surface and let water out at the bottom.`,
              badness: 1,
              mends: () => [{ words: 'Set it as is advised here', patch: endPatch(line, e.at_m, { setting: undefined }) }], // prettier-ignore
            }),
          ],
    ),
};

/** A way of setting posts that does not suit the ground. */
export const settingUnsuited: Rule = {
  id: 'setting-unsuited',
  cause: 'Setting does not suit the ground',
  step: 'ends',
  kind: 'mend',
  source: { mark: 'practice', text: 'What holds in which soil; people disagree' },
  check: (scene) =>
    [...eachPlace(scene)].flatMap(([line, e]): Found[] => {
      const [first] = doubts(scene, e).filter((d) => d !== 'timber');
      if (!first) return [];
      return [
        atEnd(scene, line, e, {
          title: `The posts at the ${what(e)} of ${line.name} do not suit the ground`,
          why: `At ${scene.where(line.id, e.at_m)}: ${DOUBTS[first as keyof typeof DOUBTS][1]}.`,
          todo: first === 'frost' ? 'Longer posts, below the frost.' : 'Set them another way.',
          badness: 1,
          mends: () => [{ words: 'Set it as is advised here', patch: endPatch(line, e.at_m, { setting: undefined }) }], // prettier-ignore
        }),
      ];
    }),
};

/** Timber that was not treated for the ground, at an end that everything hangs on. */
export const postUntreated: Rule = {
  id: 'post-untreated',
  cause: 'Untreated timber in the ground',
  step: 'ends',
  kind: 'mend',
  source: { mark: 'practice', text: 'Untreated timber stands 5 to 7 years in the ground' },
  check: (scene) =>
    [...eachPlace(scene)].flatMap(([line, e]): Found[] => {
      const kind = recordOf(scene.cat.posts, e.post);
      if (e.wood !== 'untreated' || kind.conducts) return [];
      const years = figure(scene.cat, 'ends.untreatedLife');
      return [
        atEnd(scene, line, e, {
          title: `Untreated timber at the ${what(e)} of ${line.name}`,
          why: `At ${scene.where(line.id, e.at_m)}: some ${years} years in the ground, a treated one some ${kind.life_y}.`,
          todo: 'Timber treated for ground contact, of a lasting kind, or steel.',
          badness: kind.life_y / years,
          mends: () => [{ words: 'Take treated timber', patch: endPatch(line, e.at_m, { wood: undefined }) }], // prettier-ignore
        }),
      ];
    }),
};
