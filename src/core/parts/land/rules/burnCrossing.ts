import { planLength } from '../../../plan/geometry.js';
import type { Pin } from '../../../plan/schema.js';
import { stretchesNear, thingsOf } from '../../../land/things.js';
import { listed, onLine, type Found, type Rule } from '../../../findings/rule.js';

/** A post this near to the bank stands at it, m. */
const AT_BANK = 1.5;

/** A line across running water: floods take the lowest strands. */
export const burnCrossing: Rule = {
  id: 'burn-crossing',
  cause: 'Fence crosses a burn',
  step: 'land',
  kind: 'confirm',
  source: { mark: 'practice', text: 'A burn is crossed in one bay, with a flood gate of its own' },
  check: (scene) =>
    thingsOf(scene.plan, 'burn').flatMap((burn) =>
      Object.values(scene.plan.lines).flatMap((line): Found[] => {
        const total = planLength(line);
        const pins = line.pins ?? [];
        const stands = (s: number) =>
          s <= AT_BANK || s >= total - AT_BANK || pins.some((p) => Math.abs(p.at_m - s) <= AT_BANK);
        const open = stretchesNear(line, burn, 0.01).flatMap(([from, to]) => {
          const banks = [Math.max(0, from - 0.5), Math.min(total, to + 0.5)];
          const missing = banks.filter((s) => !stands(s));
          return missing.length ? [{ from, to, banks, missing }] : [];
        });
        if (open.length === 0) return [];
        /** Pins where they are missing, or at both banks although one is near: the bay may be too long. */
        const pinned = (which: 'missing' | 'banks'): Pin[] =>
          [
            ...pins,
            ...open.flatMap((o) => o[which].map((at_m): Pin => ({ at_m, kind: null }))),
          ].sort((a, b) => a.at_m - b.at_m);
        const where = open.map(
          ({ from, to }) => `from ${scene.where(line.id, from)} to ${scene.where(line.id, to)}`,
        );
        return [
          {
            key: `${line.id}-${burn.id}`,
            title: `${line.name} crosses ${burn.name}`,
            why: `It spans water ${listed(where)}: in a flood, drift on the lowest strands pulls posts out and shorts the line.`,
            todo: 'A post at each bank, and a flood gate hung below the strands on a lead of its own that can be switched off.',
            place: onLine(line, open[0]!.from, open[0]!.to),
            badness: open.reduce((sum, o) => sum + o.missing.length, 0),
            mends: () =>
              (['missing', 'banks'] as const).map((which) => ({
                words: 'Pin a post at each bank',
                patch: [
                  {
                    op: line.pins ? 'replace' : 'add',
                    path: `/lines/${line.id}/pins`,
                    value: pinned(which),
                  },
                ],
              })),
          },
        ];
      }),
    ),
};
