import { say, type Units } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport, RuleMark } from '../../core/report/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { ABOUT, PLAIN, STATE, who } from './words.js';

/** What the rules say: those that are broken one by one, those at their limit in a line. */
export function Marks({ line, report }: { line: Line; report: LineReport }) {
  const units = useUnits();
  const cat = useCatalogue();
  if (!report.requirement)
    return <p className="mt-1">Nobody is said to stand here yet: say it under “What it asks”.</p>;
  const sentence = (m: RuleMark) => {
    const { q, sign } = ABOUT[m.about];
    const name = m.about === 'gap' ? 'Gap' : ABOUT[m.about].name;
    const at = m.strands.map((i) => say(line.strands[i]?.height_m ?? 0, 'height', units));
    const where = m.strands.length === 2 ? ` from ${at[0]} to ${at[1]}` : '';
    const for_ = m.profile ? ` for ${who(m.profile, cat)}` : '';
    if (PLAIN.includes(m.about)) return `${name}${for_}`;
    return `${name}${where}: ${say(m.value, q, units)}, ${sign} ${say(m.limit, q, units)}${for_}`;
  };
  const broken = report.marks.filter((m) => m.state === 'broken');
  const limit = report.marks.filter((m) => m.state === 'limit');
  return (
    <div role="status" aria-label="Rules" className="mt-1 text-[0.964rem]">
      {broken.length === 0 ? (
        <p>
          <span aria-hidden className="text-good font-semibold">
            {STATE.kept.glyph}{' '}
          </span>
          Every rule is kept{limit.length ? `; at its limit: ${limitWords(limit)}` : ''}.
        </p>
      ) : (
        <ul>
          {broken.map((m, k) => (
            <li key={k} className="text-stop font-semibold">
              <span aria-hidden>{STATE.broken.glyph} </span>
              {sentence(m)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function limitWords(marks: readonly RuleMark[]): string {
  const names = [...new Set(marks.map((m) => ABOUT[m.about].name.toLowerCase()))];
  return names.join(', ');
}

/** Figure of a requirement in words, for labels. */
export const demandText = (about: RuleMark['about'], value: number, units: Units): string =>
  PLAIN.includes(about) ? 'yes' : `${ABOUT[about].sign} ${say(value, ABOUT[about].q, units)}`;
