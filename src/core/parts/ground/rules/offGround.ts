import { eachLine, listed, onLine, type Rule } from '../../../findings/rule.js';

/** A line that leaves the ground that was imported. */
export const offGround: Rule = {
  id: 'off-ground',
  cause: 'Line leaves the known ground',
  step: 'land',
  kind: 'confirm',
  source: { mark: 'derived', text: 'Extent of the imported ground' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => {
      const parts = report.unknownGround.map(
        ([from, to]) => `from ${scene.where(line.id, from)} to ${scene.where(line.id, to)}`,
      );
      if (parts.length === 0) return [];
      return [
        {
          key: line.id,
          title: `${line.name} leaves the known ground`,
          why: `There are no heights ${listed(parts)}; the ground there is taken as straight, so posts, clearance and uplift are a guess.`,
          todo: 'Import ground that covers it, or level that stretch by hand.',
          place: onLine(line, ...report.unknownGround[0]!),
          badness: report.unknownGround.reduce((sum, [from, to]) => sum + to - from, 0),
        },
      ];
    }),
};
