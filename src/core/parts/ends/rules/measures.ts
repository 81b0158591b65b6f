import { railLength, usualDepth } from '../../../ends/propose.js';
import { frostOf } from '../../../ends/along.js';
import { figure, recordOf } from '../../../plan/catalogue.js';
import type { EndReport } from '../../../report/schema.js';
import type { Found, Rule, LineScene } from '../../../findings/rule.js';
import { assemblyOf, atEnd, eachEnd, endPatch, WORDS } from './ends.js';

const what = (e: EndReport) => WORDS[e.role] ?? 'end';
const top = (e: EndReport) => Math.max(...e.strands.map(([h]) => h));
const railed = (e: EndReport) => e.kind === 'h' || e.kind === 'double-h' || e.kind === 'n';

/** A rail shorter than schools ask for: the end post lifts the more. */
export const railShort: Rule = {
  id: 'rail-short',
  cause: 'Rail short',
  step: 'ends',
  kind: 'mend',
  source: { mark: 'practice', text: 'A rail is twice to two and a half times the fence height' },
  check: (scene) => {
    const heights = figure(scene.cat, 'ends.railHeights');
    return [...eachEnd(scene)].flatMap(([line, e]): Found[] => {
      const wants = heights * top(e);
      if (!railed(e) || e.shared || e.rail_m >= wants - 0.02) return [];
      return [
        atEnd(scene, line, e, {
          title: `A short rail at the ${what(e)} of ${line.name}`,
          why: `At ${scene.where(line.id, e.at_m)} the rail is ${scene.say.metres(e.rail_m)}, ${Math.round((e.rail_m / top(e)) * 10) / 10} heights of the fence; ${heights} heights are ${scene.say.metres(wants)}. The end post lifts ${Math.round(100 * (wants / e.rail_m - 1))} % more than with that.`,
          todo: 'A longer rail; or move the bend that leaves it no room.',
          badness: wants / e.rail_m,
          mends: () => [{ words: 'Take the usual rail', patch: endPatch(line, e.at_m, { [e.side]: { ...assemblyOf(e), rail_m: railLength(heights, { topStrand_m: top(e), room_m: Infinity }, scene.cat) } }) }], // prettier-ignore
        }),
      ];
    });
  },
};

/** A brace wire from the foot of the brace post to the top of the end post: under load it goes slack. */
export const braceWireWrong: Rule = {
  id: 'brace-wire-wrong',
  cause: 'Brace wire the wrong way',
  step: 'ends',
  kind: 'stop',
  source: {
    mark: 'published',
    text: 'Statics: only the diagonal from the foot of the end post is stretched by the pull',
  },
  check: (scene) =>
    [...eachEnd(scene)].flatMap(([line, e]): Found[] =>
      e.wire !== 'brace' || (e.kind !== 'h' && e.kind !== 'double-h')
        ? []
        : [
            atEnd(scene, line, e, {
              title: `The brace wire at the ${what(e)} of ${line.name} runs the wrong way`,
              why: `At ${scene.where(line.id, e.at_m)} it runs from the foot of the brace post: the pull of ${scene.say.newtons(e.pull_N)} slackens it, and the end leans in.`,
              todo: 'From the foot of the end post to the top of the brace post.',
              badness: e.pull_N,
              mends: () => [{ words: 'Run it from the foot of the end post', patch: endPatch(line, e.at_m, { [e.side]: { ...assemblyOf(e), wire: e.role === 'gate' ? 'both' : 'end' } }) }], // prettier-ignore
            }),
          ],
    ),
};

/** A post on which a gate hangs, with a wire for the fence's pull alone. */
export const gateOneDiagonal: Rule = {
  id: 'gate-one-diagonal',
  cause: 'Gate post with one diagonal',
  step: 'ends',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'A gate post that is pulled by the fence and by the gate gets both diagonals',
  },
  check: (scene) =>
    [...eachEnd(scene)].flatMap(([line, e]): Found[] =>
      !e.hinged || e.wire === 'both' || (e.kind !== 'h' && e.kind !== 'double-h')
        ? []
        : [
            atEnd(scene, line, e, {
              title: `A gate post of ${line.name} has one diagonal`,
              why: `At ${scene.where(line.id, e.at_m)} the fence pulls one way and the gate leans the other: on a hot day, when the wire is slack, the gate wins.`,
              todo: 'A second brace wire along the other diagonal.',
              badness: 1,
              mends: () => [{ words: 'Put both diagonals in', patch: endPatch(line, e.at_m, { [e.side]: { ...assemblyOf(e), wire: 'both' } }) }], // prettier-ignore
            }),
          ],
    ),
};

/** Posts of an end that stand less deep than practice asks, or within the frost. */
export const endShallow: Rule = {
  id: 'end-shallow',
  cause: 'End post not deep enough',
  step: 'ends',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: '1.05 m for a fence of 1.2 m, 0.9 m with a rail in firm soil, deeper for a taller one, and below the frost',
  },
  check: (scene) =>
    [...eachEnd(scene)].flatMap(([line, e]): Found[] => {
      const wants = wantedDepth(scene, e);
      if (e.depth_m >= wants - 0.02) return [];
      const room = recordOf(scene.cat.posts, e.post).length_m - top(e) - figure(scene.cat, 'posts.aboveTop'); // prettier-ignore
      return [
        atEnd(scene, line, e, {
          title: `The ${what(e)} of ${line.name} is not deep enough`,
          why: `At ${scene.where(line.id, e.at_m)} it stands ${scene.say.metres(e.depth_m)} deep; ${scene.say.metres(wants)} are wanted${wants > wantedDepth({ ...scene, plan: { ...scene.plan, frost_m: 0 } }, e) ? ', below the frost' : ''}.`,
          todo: 'Deeper, or a longer post.',
          badness: wants / e.depth_m,
          mends: () => [
            ...(room >= wants ? [{ words: `Set it ${scene.say.metres(Math.ceil(wants * 20) / 20)} deep`, patch: endPatch(line, e.at_m, { depth_m: Math.ceil(wants * 20) / 20 }) }] : []), // prettier-ignore
            { words: 'Take post and depth that are proposed', patch: endPatch(line, e.at_m, { depth_m: undefined, post: undefined }) }, // prettier-ignore
          ],
        }),
      ];
    }),
};

function wantedDepth({ plan, cat }: LineScene, e: EndReport): number {
  const soil = recordOf(cat.soils, e.soil);
  return usualDepth({ soil, topStrand_m: top(e), frost_m: frostOf(plan, cat) }, railed(e), cat);
}

/** A depth that leaves too little of the post above the ground. */
export const endTooDeep: Rule = {
  id: 'end-too-deep',
  cause: 'End post too short for its depth',
  step: 'ends',
  kind: 'stop',
  source: {
    mark: 'derived',
    text: 'A post is as long as its depth, the top strand and a little wood above it',
  },
  check: (scene) =>
    [...eachEnd(scene)].flatMap(([line, e]): Found[] => {
      const out = top(e) + figure(scene.cat, 'posts.aboveTop');
      const length = recordOf(scene.cat.posts, e.post).length_m;
      if (e.depth_m + out <= length + 0.02) return [];
      return [
        atEnd(scene, line, e, {
          title: `The ${what(e)} of ${line.name} is too short to stand so deep`,
          why: `At ${scene.where(line.id, e.at_m)} ${scene.say.metres(e.depth_m)} in the ground and ${scene.say.metres(out)} above it want a post of ${scene.say.metres(e.depth_m + out)}; it is ${scene.say.metres(length)}.`,
          todo: 'A longer post, or less depth.',
          badness: e.depth_m + out - length,
          mends: () => [
            ...(length - out >= wantedDepth(scene, e) - 0.01 ? [{ words: `Set it ${scene.say.metres(length - out)} deep`, patch: endPatch(line, e.at_m, { depth_m: Math.floor((length - out) * 100) / 100 }) }] : []), // prettier-ignore
            { words: 'Take post and depth that are proposed', patch: endPatch(line, e.at_m, { depth_m: undefined, post: undefined }) }, // prettier-ignore
          ],
        }),
      ];
    }),
};
