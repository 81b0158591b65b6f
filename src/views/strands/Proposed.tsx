import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import { makeUp } from '../../core/strands/makeUp.js';
import type { LineReport, Proposal } from '../../core/report/schema.js';
import { Part } from '../../ui/parts/controls.js';
import { Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../ui/session/catalogue.js';
import { commit } from '../../ui/session/session.js';

const FIELD: Record<Proposal['reasons'][number]['about'], string> = {
  lowest: 'lowestMax_m',
  gap: 'gapMax_m',
  top: 'topMin_m',
  count: 'minStrands',
};

/** The make-up that meets the strictest figure of everybody at the line, with the reasons. */
export function Proposed({ line, report }: { line: Line; report: LineReport }) {
  const units = useUnits();
  const cat = useCatalogue();
  const { heights_m, reasons } = report.proposal!;
  const need = report.requirement!;
  const same =
    heights_m.length === line.strands.length &&
    heights_m.every((h, i) => Math.abs(h - line.strands[i]!.height_m) < 0.005);
  const words = ({ about, profile, value }: Proposal['reasons'][number]) => {
    const who = cat.profiles[profile]!.name.toLowerCase();
    switch (about) {
      case 'lowest':
        return `The lowest at ${say(value, 'height', units)}, as high as ${who} allow, so that grass loads it least.`;
      case 'gap':
        return `Gaps of ${say(value, 'height', units)} or less low down, for ${who}.`;
      case 'top':
        return `The top at ${say(value, 'height', units)}, for ${who}.`;
      default:
        return `At least ${value} strands, for ${who}.`;
    }
  };
  const take = () =>
    commit(`proposed make-up on ${line.name}`, (d) => {
      d.lines[line.id]!.strands = makeUp(heights_m, line.strands, cat);
    });
  return (
    <Part
      title={`Proposed: ${heights_m.length} strands`}
      aside={
        <button className="button button-strong" disabled={same} onClick={take}>
          {same ? 'this is what stands' : 'Take the proposal'}
        </button>
      }
    >
      <p className="figure text-[15px] whitespace-normal">
        {heights_m.map((h) => say(h, 'height', units)).join('  ')}
      </p>
      <ul className="mt-2 space-y-1">
        {reasons.map((r) => (
          <li key={r.about} className="border-rule border-l-2 pl-2">
            {words(r)}
            <WhereFrom
              shown={r.about === 'count' ? String(r.value) : say(r.value, 'height', units)}
              origin={{
                kind: 'default',
                title: cat.profiles[r.profile]!.name,
                inputs: [
                  {
                    name: words(r),
                    path: `profiles.${r.profile}.${FIELD[r.about]}`,
                    ...(r.about === 'count' ? {} : { quantity: 'height' as const }),
                  },
                ],
              }}
            />
          </li>
        ))}
        <li className="border-rule border-l-2 pl-2">
          Aim at the worst point:{' '}
          <Num
            value={need.aim_V}
            q="volt"
            from={{
              kind: 'default',
              title: cat.profiles[need.decidedBy.aim]!.name,
              inputs: [
                {
                  name: 'Aim at the worst point',
                  path: `profiles.${need.decidedBy.aim}.aim_V`,
                  quantity: 'volt',
                },
              ],
            }}
          />
          , for {cat.profiles[need.decidedBy.aim]!.name.toLowerCase()}.
        </li>
      </ul>
      <p className="label mt-2">
        Taken from {need.profiles.map((id) => cat.profiles[id]!.name.toLowerCase()).join(', ')}: the
        strictest of each figure. Trained stock are held with less by many; kids and hard-pressing
        animals want more.
      </p>
    </Part>
  );
}
