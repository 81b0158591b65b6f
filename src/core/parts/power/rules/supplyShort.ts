import { supplyYear } from '../../../sizing/supply.js';
import { plateOfUnit } from '../../../power/unit.js';
import { replace, type Rule } from '../../../findings/rule.js';

/** Spells of cloud that the year is worked out for. */
const SEED = 1;

/** A battery that does not last through the cloud, or a panel that does not fill it. */
export const supplyShort: Rule = {
  id: 'supply-short',
  cause: 'Supply runs flat',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'derived',
    text: 'Mean draw against battery and panel over a year with spells of cloud',
  },
  check: (scene) =>
    Object.values(scene.plan.energisers).flatMap((e) => {
      const { supply } = e;
      if (!supply || plateOfUnit(e, scene.cat).supply === 'mains') return [];
      const year = supplyYear(e, supply, null, SEED, scene.cat);
      const need = {
        battery_Ah: Math.ceil(year.battery_needed_Ah / 5) * 5,
        panel_W: Math.ceil(year.panel_needed_W / 5) * 5,
      };
      const small = supply.battery_Ah < year.battery_needed_Ah - 1e-9;
      if (!small && year.flat_days === 0) return [];
      return {
        key: e.id,
        title: `${e.name} runs flat`,
        why: `It draws ${Math.round(year.daily_Wh)} Wh a day. ${small ? `For ${supply.cloud_days} days of cloud it wants a battery of ${Math.ceil(year.battery_needed_Ah)} Ah, and has ${supply.battery_Ah}. ` : ''}${year.flat_days > 0 ? `In a year with spells of cloud it is flat on ${year.flat_days} days.` : ''}`,
        todo: 'A larger battery or panel, or a smaller unit; a dead fence teaches stock to walk through.',
        place: { e: e.e, n: e.n },
        badness: year.flat_days + 1,
        mends: () => [
          {
            words: `Battery of ${Math.max(need.battery_Ah, supply.battery_Ah)} Ah, panel of ${Math.max(need.panel_W, supply.panel_W)} W`,
            patch: [
              replace(`/energisers/${e.id}/supply/battery_Ah`, Math.max(need.battery_Ah, supply.battery_Ah)), // prettier-ignore
              replace(`/energisers/${e.id}/supply/panel_W`, Math.max(need.panel_W, supply.panel_W)),
            ],
          },
        ],
      };
    }),
};
