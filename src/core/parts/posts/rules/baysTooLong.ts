import { usualBay } from '../../../posts/bays.js';
import { eachLine, onLine, placeAnew, replace, type Rule } from '../../../findings/rule.js';

/** A typed bay length beyond what the stock and the ground want. */
export const baysTooLong: Rule = {
  id: 'bays-too-long',
  cause: 'Bays too long',
  step: 'section',
  kind: 'mend',
  source: { mark: 'practice', text: 'Longest bay by stock and ground' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      if (line.maxBay_m === null || !report.requirement) return [];
      const { small, holdBay_m } = report.requirement;
      const most = (undulating: boolean) =>
        usualBay({ small, holdBay_m, undulating, dropped: line.dropper !== undefined }, scene.cat);
      const bad = report.stretches.filter((s) => s.bay_m > most(s.undulating) + 0.01);
      if (bad.length === 0) return [];
      const longest = bad.reduce((a, b) => (b.bay_m > a.bay_m ? b : a));
      const limit = most(longest.undulating);
      return [
        {
          key: line.id,
          title: `Bays too long on ${line.name}`,
          why: `Bays of ${scene.say.metres(longest.bay_m)} on ${longest.undulating ? 'undulating' : 'even'} ground; ${scene.say.metres(limit)} is the most for this stock.`,
          todo: 'Set the posts closer, or put droppers between them.',
          place: onLine(line, longest.from_m, longest.to_m),
          badness: longest.bay_m - limit,
          mends: () =>
            line.placed
              ? [placeAnew(line)]
              : [
                  {
                    words: 'Go back to the usual longest bay',
                    patch: [replace(`/lines/${line.id}/maxBay_m`, null)],
                  },
                ],
        },
      ];
    }),
};
