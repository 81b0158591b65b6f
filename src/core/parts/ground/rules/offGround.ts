import { eachLine, onLine, type Rule } from '../../../findings/rule.js';

/** A line that leaves the ground that was imported. */
export const offGround: Rule = {
  id: 'off-ground',
  step: 'land',
  kind: 'confirm',
  source: { mark: 'derived', text: 'Extent of the imported ground' },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) =>
      report.unknownGround.map(([from, to], i) => ({
        key: `${line.id}-${i}`,
        title: `${line.name} leaves the known ground`,
        why: `From ${scene.where(line.id, from)} to ${scene.where(line.id, to)} there are no heights; the ground there is taken as straight, so posts, clearance and uplift are a guess.`,
        todo: 'Import ground that covers it, or level that stretch by hand.',
        place: onLine(line, from, to),
      })),
    ),
};
