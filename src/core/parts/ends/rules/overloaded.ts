import { weakestOf } from '../../../ends/judge.js';
import { checkWords } from '../../../ends/words.js';
import { figure } from '../../../plan/catalogue.js';
import type { Line } from '../../../plan/schema.js';
import type { EndReport, HoldCheck } from '../../../report/schema.js';
import type { Found, Mend, Rule, LineScene } from '../../../findings/rule.js';
import { asProposed, assemblyOf, atEnd, eachEnd, endPatch, WORDS } from './ends.js';

/** Why an end does not hold. */
type Cause = 'hollow' | 'soft' | 'load';

const GROUND: ReadonlySet<HoldCheck['of']> = new Set(['lift', 'foot', 'second']);

function causeOf(e: EndReport): Cause {
  const w = weakestOf(e.checks);
  // Without the slope of the wire it would hold.
  const slope_N = e.pull_N * Math.sin(Math.atan(e.grade));
  if (w.of === 'lift' && slope_N > 0 && (w.asked - slope_N) * w.safety <= w.gives) return 'hollow';
  return e.kind === 'h' && GROUND.has(w.of) ? 'soft' : 'load';
}

const found =
  (
    cause: Cause,
    say: (scene: LineScene, line: Line, e: EndReport) => Pick<Found, 'title' | 'todo'>,
  ) =>
  (scene: LineScene): Found[] => {
    const out: Found[] = [];
    for (const [line, e] of eachEnd(scene)) {
      const w = weakestOf(e.checks);
      if (w.share <= 1 || causeOf(e) !== cause) continue;
      out.push(
        atEnd(scene, line, e, {
          ...say(scene, line, e),
          why: `At ${scene.where(line.id, e.at_m)} the strands pull with ${scene.say.newtons(e.pull_N)} on the coldest night; ${checkWords(w, scene.say)}.`,
          badness: w.share,
          mends: () => [...asProposed(line, e), ...stronger(line, e)],
        }),
      );
    }
    return out;
  };

/** The same end with the next stronger assembly. */
const stronger = (line: Line, e: EndReport): Mend[] =>
  e.kind === 'h' || e.kind === 'n' || e.kind === 'stay' || e.kind === 'post'
    ? [{ words: 'Make it a double H', patch: endPatch(line, e.at_m, { [e.side]: { ...assemblyOf(e), kind: 'double-h' } }) }] // prettier-ignore
    : [];

const source = {
  mark: 'derived' as const,
  text: 'Statics of the assembly, hinged and embedded, the greater decides; soil figures are memory and judgement',
};

const what = (line: Line, e: EndReport): string => `${WORDS[e.role] ?? 'end'} of ${line.name}`;

/** An end of which some part gives way on the coldest night. */
export const endOverloaded: Rule = {
  id: 'end-overloaded',
  cause: 'End overloaded',
  step: 'ends',
  kind: 'stop',
  source,
  check: found('load', (_, line, e) => ({
    title: `The ${what(line, e)} does not hold`,
    todo: 'A stronger assembly, a longer or deeper post, another way of setting it, fewer strands or less tension.',
  })),
};

/** A single H in ground that does not hold it. */
export const endSoft: Rule = {
  id: 'end-soft',
  cause: 'Soil too soft for a single H',
  step: 'ends',
  kind: 'stop',
  source,
  check: found('soft', (_, line, e) => ({
    title: `The ground does not hold the H at the ${what(line, e)}`,
    todo: 'A double H, a longer rail, deeper posts, or a tie-back.',
  })),
};

/** An end low down, from which the fence climbs: the slope of the wire lifts it. */
export const endLifts: Rule = {
  id: 'end-lifts',
  cause: 'End in a hollow lifts',
  step: 'ends',
  kind: 'stop',
  source,
  check: found('hollow', (_, line, e) => ({
    title: `The ${what(line, e)} stands low and lifts`,
    todo: `The fence climbs ${Math.round(100 * e.grade)} % away from it. A tie-back, a double H, deeper posts, or an end further up.`,
  })),
};

/** More pull on one end than the program proposes for. */
export const endEngineer: Rule = {
  id: 'end-engineer',
  cause: 'More pull than this program proposes for',
  step: 'ends',
  kind: 'confirm',
  source: { mark: 'assumed', text: 'A limit of the catalogue; above it ask an engineer' },
  check: (scene) => {
    const limit = figure(scene.cat, 'ends.engineer');
    return [...eachEnd(scene)].flatMap(([line, e]): Found[] =>
      e.pull_N <= limit
        ? []
        : [
            atEnd(scene, line, e, {
              title: `A great pull on the ${what(line, e)}`,
              why: `At ${scene.where(line.id, e.at_m)} the strands pull with ${scene.say.newtons(e.pull_N)} on the coldest night; above ${scene.say.newtons(limit)} the figures here are not enough to build on.`,
              todo: 'Ask an engineer, and what is built in your district.',
              badness: e.pull_N,
            }),
          ],
    );
  },
};
