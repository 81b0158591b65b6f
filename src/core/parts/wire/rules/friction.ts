/** Rules about what the supports leave of the pull: bends that the wire is wrapped round, grades, and where it is tensioned. */
import { figure, type Catalogue } from '../../../plan/catalogue.js';
import { deflections, stations } from '../../../plan/geometry.js';
import type { Line } from '../../../plan/schema.js';
import { eachLine, onLine, remove, replace, type Mend, type Rule } from '../../../findings/rule.js';
import type { LineReport } from '../../../report/schema.js';
import { bestPlace } from './ways.js';

interface Wrapped {
  readonly i: number;
  readonly s_m: number;
  readonly turn: number;
}

/** Vertices that turn sharply, and round which the wire runs on, in one run. */
function wrappedIn(line: Line, run: LineReport['runs'][number], cat: Catalogue): Wrapped[] {
  const at = stations(line.vertices);
  const turns = deflections(line.vertices);
  const limit = figure(cat, 'posts.bendLimit');
  return line.vertices.flatMap((v, i) =>
    v.kind === 'bend' && turns[i]! > limit && at[i]! > run.from_m && at[i]! < run.to_m
      ? [{ i, s_m: at[i]!, turn: (turns[i]! * Math.PI) / 180 }]
      : [],
  );
}

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
      const mu = figure(cat, 'wire.frictionBend');
      return report.runs.flatMap((run, k) => {
        const wrapped = wrappedIn(line, run, cat);
        const passes = Math.exp(-mu * wrapped.reduce((sum, w) => sum + w.turn, 0));
        if (passes >= figure(cat, 'wire.wrapped')) return [];
        const own = report.strain.filter((s) => s.run === k);
        if (own.length === 0) return [];
        const worst = own.reduce((a, b) =>
          b.least15_N / b.at15_N < a.least15_N / a.at15_N ? b : a,
        );
        const first = wrapped[0]!;
        return [
          {
            key: `${line.id}-${line.vertices[first.i]!.id}`,
            title: `The wire of ${line.name} is wrapped round ${wrapped.length === 1 ? 'a corner' : `${wrapped.length} corners`}`,
            why: `${wrapped.length === 1 ? 'It lets' : 'Together they let'} ${Math.round(100 * passes)} % of the pull through: of ${say.newtons(worst.at15_N)} at the tensioner ${say.newtons(worst.least15_N)} are left in the slackest bay.`,
            todo: 'Strain it off at each corner: separate runs, each with its own ends.',
            place: onLine(line, run.from_m, run.to_m),
            badness: 1 / passes,
            mends: () => [
              {
                words: wrapped.length === 1 ? 'Make it a corner' : 'Make them corners',
                patch: wrapped.map((w) =>
                  replace(`/lines/${line.id}/vertices/${w.i}/kind`, 'corner'),
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
      if (lost.length === 0) return [];
      const worst = lost.reduce((a, b) =>
        b.least15_N / b.at15_N < a.least15_N / a.at15_N ? b : a,
      );
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
      const mu = figure(cat, 'wire.frictionBend');
      return report.runs.flatMap((run, k) => {
        const s = report.strain.find((r) => r.run === k);
        if (!s) return [];
        const clear_m = (figure(cat, 'wire.clearOfBend') + 0.2) * s.bay_m;
        const near = wrappedIn(line, run, cat).find((w) => Math.abs(w.s_m - s.at_m) < clear_m);
        if (!near || Math.exp(-mu * near.turn) >= figure(cat, 'wire.wrapped')) return [];
        return [
          {
            key: `${line.id}-${line.vertices[near.i]!.id}`,
            title: `The tensioner of ${line.name} is beside a corner`,
            why: `At ${scene.where(line.id, near.s_m)} the wire turns ${Math.round((near.turn * 180) / Math.PI)} degrees: beyond it ${say.newtons(s.at15_N * Math.exp(-mu * near.turn))} of ${say.newtons(s.at15_N)} are left.`,
            todo: 'Put it where both sides keep alike, or strain the wire off at the corner.',
            place: onLine(line, near.s_m),
            badness: near.turn,
            mends: (): Mend[] => [
              bestPlace(line),
              {
                words: 'Make it a corner',
                patch: [replace(`/lines/${line.id}/vertices/${near.i}/kind`, 'corner')],
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
        (t) => !report.runs.some((r) => t.at_m >= r.from_m && t.at_m <= r.to_m),
      );
      if (lost.length === 0 || report.runs.length === 0) return [];
      return [
        {
          key: line.id,
          title: `A tensioner of ${line.name} stands in no run`,
          why: `It was placed at ${scene.say.along(lost[0]!.at_m)}, where there is no fence between posts.`,
          todo: 'Take it back, or place it in a run.',
          place: onLine(line, Math.min(lost[0]!.at_m, lengthOf(line))),
          mends: () => [{ words: 'Take it back', patch: [without(line, lost)] }],
        },
      ];
    }),
};

const lengthOf = (line: Line): number => stations(line.vertices).at(-1)!;

function without(line: Line, lost: readonly { at_m: number }[]): Mend['patch'][number] {
  const left = line.tensioners!.filter((t) => !lost.includes(t));
  const path = `/lines/${line.id}/tensioners`;
  return left.length ? replace(path, left) : remove(path);
}
