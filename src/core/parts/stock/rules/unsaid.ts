import { eachLine, onLine, type Found, type Rule } from '../../../findings/rule.js';

/** What the verdicts rest on and nobody has said yet: stock, soil, leakage. */
export const unsaid: Rule = {
  id: 'unsaid',
  cause: 'Taken as usual, to be said',
  step: 'land',
  kind: 'confirm',
  whole: true,
  source: { mark: 'assumed', text: 'Defaults of the catalogue' },
  check: (scene) => {
    const out: Found[] = eachLine(scene).flatMap(([line]) =>
      line.left.length + line.right.length + line.keepOut.length > 0
        ? []
        : [
            {
              key: `stock-${line.id}`,
              cause: 'Stock beside the fence not said',
              title: `Which stock stand at ${line.name}?`,
              why: 'Strands, bays and the volts to aim for follow from it; until then the usual aim is taken.',
              todo: 'Say it on Strands.',
              place: onLine(line),
            },
          ],
    );
    const soil = scene.cat.soils[scene.plan.soil];
    const measured = Object.keys(scene.plan.overrides).some((k) =>
      k.startsWith(`soils.${scene.plan.soil}.`),
    );
    const e = Object.values(scene.plan.energisers)[0];
    if (e && soil && !measured) {
      out.push({
        key: 'soil',
        cause: 'Soil taken from a table',
        title: `The soil is taken as ${soil.name.toLowerCase()} from a table`,
        why: `${scene.say.resistivity(soil.dry_ohm_m)} in the driest month decides the rods; soils of one name differ by ten times.`,
        todo: 'Measure with four pins in a dry spell and put your own figure in on Power.',
        place: { e: e.e, n: e.n },
      });
    }
    const leakage = Object.keys(scene.plan.overrides).some((k) => k.startsWith('seasons.'));
    if (e && !leakage) {
      out.push({
        key: 'leakage',
        cause: 'Leakage assumed',
        title: 'The leakage of the fence is assumed',
        why: 'It is the least certain figure of all, and the volts hang on it.',
        todo: 'After the build, read the far end in both seasons and put the leakage right on Power.',
        place: { e: e.e, n: e.n },
      });
    }
    return out;
  },
};
