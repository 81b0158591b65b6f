import type { EnergiserReport } from '../../../report/schema.js';
import {
  onLine,
  remove,
  replace,
  type Found,
  type Rule,
  type Scene,
} from '../../../findings/rule.js';

/** The worst live point falls short of what its stock want, or of the reserve asked for. */
export const belowAim: Rule = {
  id: 'below-aim',
  cause: 'Too few volts',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: { mark: 'derived', text: 'Pulse simulated on the network; leakage is assumed' },
  check: (scene) => Object.values(scene.energisers).flatMap((report) => judge(scene, report)),
};

function judge(scene: Scene, report: EnergiserReport): Found[] {
  const e = scene.plan.energisers[report.id]!;
  const { least } = report;
  if (!least || least.share >= 1 + scene.plan.sizing.reserve) return [];
  const worst = report.seasons[least.season]?.worst;
  if (!worst) return [];
  const line = scene.plan.lines[worst.line]!;
  const season = scene.cat.seasons[least.season]!.name.toLowerCase();
  const short = least.share < 1;
  const bigger = report.smallest;
  return [
    {
      key: report.id,
      kind: short ? 'mend' : 'confirm',
      cause: short ? 'Too few volts' : 'Little reserve of volts',
      title: short ? `Too few volts on ${line.name}` : `Little reserve on ${line.name}`,
      why: `In the season “${season}” ${scene.say.kilovolts(worst.v_V)} arrive at ${scene.where(worst.line, worst.at_m)}; the aim there is ${scene.say.kilovolts(worst.aim_V)}${short ? '' : ` and the reserve asked for ${Math.round(scene.plan.sizing.reserve * 100)} %`}.`,
      todo: bigger
        ? 'A larger unit, or less leakage, more rods, or a feed nearer the middle.'
        : 'No unit of the catalogue within the limit reaches it: cut the growth, add rods, or split the fence.',
      place: onLine(line, worst.at_m),
      badness: worst.aim_V / Math.max(worst.v_V, 1),
      mends: () =>
        bigger && bigger !== e.model
          ? [
              {
                words: `Choose ${scene.cat.energisers[bigger]!.name}`,
                patch: [
                  replace(`/energisers/${e.id}/model`, bigger),
                  ...(e.plate ? [remove(`/energisers/${e.id}/plate`)] : []),
                ],
              },
            ]
          : [],
    },
  ];
}
