/** Rules about what the supports leave of the pull: bends that the wire is wrapped round, grades, and where it is tensioned. */
import { figure, type Catalogue } from '../../../plan/catalogue.js';
import { sum } from '../../../base/numbers.js';
import { planLength } from '../../../plan/geometry.js';
import type { Line } from '../../../plan/schema.js';
import { eachLine, onLine, remove, replace, type Mend, type Rule } from '../../../findings/rule.js';
import type { LineReport } from '../../../report/schema.js';
import { slackestOf } from '../../../wire/strain.js';
import { inRun } from '../../../wire/strung.js';
import { bendsOfWire, type Turn } from '../../../wire/turns.js';
import { bestPlace } from './ways.js';

/** Sharp turns round which the wire runs on, in one run. */
const wrappedIn = (line: Line, run: LineReport['runs'][number], cat: Catalogue): Turn[] =>
  bendsOfWire(line, cat).filter((t) => t.s_m > run.from_m && t.s_m < run.to_m);

/** Share of the pull that is left beyond some turns. */
const passes = (turns: readonly Turn[], cat: Catalogue): number =>
  Math.exp((-figure(cat, 'wire.frictionBend') * Math.PI * sum(turns.map((t) => t.deg))) / 180);

/** A wire that is wrapped round corners: what friction leaves beyond them. */
export const runWrapped: Rule = {
  id: 'run-wrapped',
  cause: 'Run wrapped round corners',
  step: 'strain',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'Separate runs from corner to corner come out much tighter, and are easier to strain',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const { cat, say } = scene;
      return report.runs.flatMap((run, k) => {
        const wrapped = wrappedIn(line, run, cat);
        const left = passes(wrapped, cat);
        const worst = slackestOf(report.strain.filter((s) => s.run === k));
        if (left >= figure(cat, 'wire.wrapped') || !worst) return [];
        const first = wrapped[0]!;
        return [
          {
            key: `${line.id}-${line.vertices[first.vertex]!.id}`,
            title: `The wire of ${line.name} is wrapped round ${wrapped.length === 1 ? 'a corner' : `${wrapped.length} corners`}`,
            why: `${wrapped.length === 1 ? 'It lets' : 'Together they let'} ${Math.round(100 * left)} % of the pull through: of ${say.newtons(worst.at15_N)} at the tensioner ${say.newtons(worst.least15_N)} are left in the slackest bay.`,
            todo: 'Strain it off at each corner: separate runs, each with its own ends.',
            place: onLine(line, run.from_m, run.to_m),
            badness: 1 / left,
            mends: () => [
              {
                words: wrapped.length === 1 ? 'Make it a corner' : 'Make them corners',
                patch: wrapped.map((w) =>
                  replace(`/lines/${line.id}/vertices/${w.vertex}/kind`, 'corner'),
                ),
              },
            ],
          },
        ];
      });
    }),
};

/** A run whose grades alone eat the pull. */
export const pullLost: Rule = {
  id: 'pull-lost',
  cause: 'Friction eats the pull',
  step: 'strain',
  kind: 'confirm',
  source: {
    mark: 'memory',
    text: 'Friction of 0.2 to 0.5 at each support that turns the wire, in three dimensions',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const { cat, say } = scene;
      const kept = figure(cat, 'wire.pullKept');
      const lost = report.strain.filter((s) => s.least15_N < kept * s.at15_N && wrappedIn(line, report.runs[s.run]!, cat).length === 0); // prettier-ignore
      const worst = slackestOf(lost);
      if (!worst) return [];
      const run = report.runs[worst.run]!;
      return [
        {
          key: line.id,
          title: `Friction eats the pull of ${line.name}`,
          why: `Of ${say.newtons(worst.at15_N)} at the tensioner ${say.newtons(worst.least15_N)} are left in the slackest bay: over hump and hollow and round curves the wire turns a little at each post of ${say.metres(run.ground_m)}.`,
          todo: 'Tension from the best place, free the wire at each post and tension again, or strain it off half way.',
          place: onLine(line, run.from_m, run.to_m),
          badness: worst.at15_N / worst.least15_N,
          mends: () => [bestPlace(line)],
        },
      ];
    }),
};

/** A tensioner beside a bend that the wire runs round: one side is lost at once. */
export const tensionerAtBend: Rule = {
  id: 'tensioner-at-bend',
  cause: 'Tensioner beside a corner',
  step: 'strain',
  kind: 'mend',
  source: { mark: 'practice', text: 'A tensioner beside a corner loses one side' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const { cat, say } = scene;
      return report.runs.flatMap((run, k) => {
        const s = report.strain.find((r) => r.run === k);
        if (!s) return [];
        const clear_m = (figure(cat, 'wire.clearOfBend') + 0.2) * s.bay_m;
        const near = wrappedIn(line, run, cat).find((w) => Math.abs(w.s_m - s.at_m) < clear_m);
        const left = near ? passes([near], cat) : 1;
        if (!near || left >= figure(cat, 'wire.wrapped')) return [];
        return [
          {
            key: `${line.id}-${line.vertices[near.vertex]!.id}`,
            title: `The tensioner of ${line.name} is beside a corner`,
            why: `At ${scene.where(line.id, near.s_m)} the wire turns ${Math.round(near.deg)} degrees: beyond it ${say.newtons(s.at15_N * left)} of ${say.newtons(s.at15_N)} are left.`,
            todo: 'Put it where both sides keep alike, or strain the wire off at the corner.',
            place: onLine(line, near.s_m),
            badness: (near.deg * Math.PI) / 180,
            mends: (): Mend[] => [
              bestPlace(line),
              {
                words: 'Make it a corner',
                patch: [replace(`/lines/${line.id}/vertices/${near.vertex}/kind`, 'corner')],
              },
            ],
          },
        ];
      });
    }),
};

/** A tensioner set by hand where the line has no run, as in a gate. */
export const tensionerNowhere: Rule = {
  id: 'tensioner-nowhere',
  cause: 'Tensioner in no run',
  step: 'strain',
  kind: 'confirm',
  source: { mark: 'derived', text: 'A tensioner stands in a run, between two posts' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const lost = (line.tensioners ?? []).filter(
        (t) => !report.runs.some((r) => inRun(r, t.at_m)),
      );
      if (lost.length === 0 || report.runs.length === 0) return [];
      return [
        {
          key: line.id,
          title: `A tensioner of ${line.name} stands in no run`,
          why: `It was placed at ${scene.say.along(lost[0]!.at_m)}, where there is no fence between posts.`,
          todo: 'Take it back, or place it in a run.',
          place: onLine(line, Math.min(lost[0]!.at_m, planLength(line))),
          mends: () => [{ words: 'Take it back', patch: [without(line, lost)] }],
        },
      ];
    }),
};

function without(line: Line, lost: readonly { at_m: number }[]): Mend['patch'][number] {
  const left = line.tensioners!.filter((t) => !lost.includes(t));
  const path = `/lines/${line.id}/tensioners`;
  return left.length ? replace(path, left) : remove(path);
}
