import { figure } from '../../../plan/catalogue.js';
import { eachLine, onLine, placeAnew, replace, type Rule } from '../../../findings/rule.js';

/** A typed bay length beyond what the stock and the ground want. */
export const baysTooLong: Rule = {
  id: 'bays-too-long',
  step: 'section',
  kind: 'mend',
  source: { mark: 'practice', text: 'Longest bay by stock and ground' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      if (line.maxBay_m === null || !report.requirement) return [];
      const size = report.requirement.small ? 'Small' : 'Large';
      const bad = report.stretches.filter(
        (s) =>
          s.bay_m > figure(scene.cat, `posts.${s.undulating ? 'uneven' : 'even'}${size}`) + 0.01,
      );
      if (bad.length === 0) return [];
      const longest = bad.reduce((a, b) => (b.bay_m > a.bay_m ? b : a));
      const limit = figure(scene.cat, `posts.${longest.undulating ? 'uneven' : 'even'}${size}`);
      return [
        {
          key: line.id,
          title: `Bays too long on ${line.name}`,
          why: `Bays of ${scene.say.metres(longest.bay_m)} on ${longest.undulating ? 'undulating' : 'even'} ground; ${scene.say.metres(limit)} is the most for this stock.`,
          todo: 'Set the posts closer.',
          place: onLine(line, longest.from_m, longest.to_m),
          badness: longest.bay_m - limit,
          mends: line.placed
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
