import { figure } from '../../../plan/catalogue.js';
import {
  eachLine,
  onLine,
  replace,
  type Mend,
  type Rule,
  type LineScene,
} from '../../../findings/rule.js';
import { baysOf } from '../../../posts/layout.js';
import type { Line } from '../../../plan/schema.js';
import type { Strain } from '../../../report/schema.js';
import { emptyOf, pushMost } from '../../../wire/window.js';
import { betterJoints, shorterBays, springsIn } from './ways.js';

/** No setting is both tight enough on the hottest day and safe on the coldest night. */
export const windowEmpty: Rule = {
  id: 'window-empty',
  cause: 'No tension holds both summer and winter',
  step: 'strain',
  kind: 'mend',
  source: {
    mark: 'derived',
    text: 'Least setting that keeps sag in limits on the hottest day, against the most that the coldest night allows',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const { cat, say, plan } = scene;
      const limit = figure(cat, 'wire.sagLimit');
      // Only where something is out already can nothing hold. Rope, tape and nets are strung as they are made for.
      const push_m = pushMost(line, report, cat);
      const out = report.strain.filter(
        (s) =>
          cat.wires[s.wire]!.form === 'plain' &&
          (s.sagHot_m > limit || s.cold_N > s.limit_N || (push_m !== null && s.pushed_m > push_m)),
      );
      const runs = out.length ? baysOf(report) : [];
      for (const s of out) {
        const bayed = runs[s.run]!;
        const asked = { line, bayed, wire: s.wire, climate: plan.climate, push_m };
        const window = emptyOf(asked, cat);
        if (!window) continue;
        const { from_m, to_m } = report.runs[s.run]!;
        const keeps =
          window.lowBy === 'sag'
            ? `keeps a bay of ${say.metres(s.sagBay_m)} from sagging more than ${say.mm(limit)}`
            : 'keeps stock from pushing the strands apart';
        const least = window.none
          ? `No tension ${keeps}`
          : `${say.newtons(window.low_N)} is the least that ${keeps}`;
        return [
          {
            key: line.id,
            title: `No tension of ${line.name} holds both summer and winter`,
            why: `${least} at ${say.celsius(plan.climate.hot_C)}, and ${say.newtons(window.high_N)} is the most that is safe at ${say.celsius(plan.climate.cold_C)}.`,
            todo: 'A spring in each strand, posts nearer together, better joints, or another wire.',
            place: onLine(line, from_m, to_m),
            badness: window.low_N / window.high_N,
            mends: () => openers(scene, line, s),
          },
        ];
      }
      return [];
    }),
};

/** What opens the window: a spring, better joints, nearer posts, another wire. */
function openers(scene: LineScene, line: Line, s: Strain): Mend[] {
  const { cat } = scene;
  const others = Object.entries(cat.wires).filter(
    ([id, w]) => w.form === 'plain' && !w.insulates && !w.tension_N && !w.creep && w.metal === cat.wires[s.wire]!.metal && id !== s.wire, // prettier-ignore
  );
  const bays = [0.8, 0.65, 0.5, 0.4, 0.3].flatMap((k) => shorterBays(scene, line, k * s.bay_m));
  const wires = others.map(([id, w]): Mend => ({
    words: `${w.name} in its place`,
    patch: line.strands.flatMap((strand, k) =>
      strand.wire === s.wire ? [replace(`/lines/${line.id}/strands/${k}/wire`, id)] : [],
    ),
  }));
  const both = wires.flatMap((w) =>
    bays.map((b): Mend => ({
      words: `${w.words}, and bays ${b.words.slice(5)}`,
      patch: [...w.patch, ...b.patch],
    })),
  );
  return [...springsIn(line), ...betterJoints(scene, line), ...bays, ...wires, ...both];
}
