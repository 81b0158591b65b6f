import { figure } from '../../../plan/catalogue.js';
import { hung, propose } from '../../../strands/proposal.js';
import type { PatchStep } from '../../../plan/schema.js';
import { listed, onLine, replace, type Rule, type Scene } from '../../../findings/rule.js';

/** The ground under the hooves gives back so little that the volts on the wire do not reach the animal. */
export const feltLittle: Rule = {
  id: 'felt-little',
  cause: 'Little is felt',
  step: 'power',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'derived',
    text: 'Pulse through the animal: body, two hooves as surface discs on the soil, the network behind',
  },
  check: (scene) =>
    Object.values(scene.energisers).flatMap((report) => {
      const f = report.felt;
      if (!f || f.volts_V >= figure(scene.cat, 'shock.least') * f.want_V) return [];
      const line = scene.plan.lines[f.line]!;
      const animal = scene.cat.profiles[f.profile]!.name.toLowerCase();
      const season = scene.cat.seasons[f.season]!.name.toLowerCase();
      const others = f.lines.length - 1;
      return {
        key: report.id,
        title: `Little is felt on ${line.name}${others ? ` and ${others} more` : ''}`,
        why: `In the season “${season}” the fence reads ${scene.say.kilovolts(f.open_V)} at ${scene.where(f.line, f.at_m)}, and ${animal} would feel ${scene.say.kilovolts(f.volts_V)}; on moist ground the aim gives ${scene.say.kilovolts(f.want_V)}. The soil there leads too little back.`,
        todo: 'Live and earth strands by turns bring the current home by metal; more volts do not.',
        place: onLine(line, f.at_m),
        badness: f.want_V / Math.max(f.volts_V, 1),
        mends: () => {
          const patch = f.lines.flatMap((id) => byTurns(scene, id));
          return patch.length === 0
            ? []
            : [{ words: `Hang ${listed(f.lines.map((id) => scene.plan.lines[id]!.name))} live and earth by turns`, patch }]; // prettier-ignore
        },
      };
    }),
};

/** The strands of a line live and earth by turns; nothing where its stock forbid it. */
function byTurns(scene: Scene, id: string): PatchStep[] {
  const line = scene.plan.lines[id]!;
  const need = scene.lines[id]?.requirement;
  const offer = need && propose(need, 'turns', scene.cat);
  if (!need || !offer || 'refused' in offer) return [];
  return [replace(`/lines/${id}/strands`, hung(offer, need, line.strands, line.post, scene.cat))];
}
