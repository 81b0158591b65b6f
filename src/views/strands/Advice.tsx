import { say } from '../../core/base/units.js';
import type { Comparison, Row } from '../../core/compare/compare.js';
import type { Line } from '../../core/plan/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { usePerMetre } from '../../ui/parts/money.js';
import { who } from './words.js';

/** Why these heights: whose figure decided each. */
function Heights({ line }: { line: Line }) {
  const cat = useCatalogue();
  const units = useUnits();
  const reasons = useSession((s) => s.report?.lines[line.id]?.proposal?.reasons) ?? [];
  const words = reasons.map(({ about, profile, value }) => {
    const for_ = profile ? ` for ${who(profile, cat)}` : '';
    switch (about) {
      case 'lowest':
        return `the lowest as high as it may be, ${say(value, 'height', units)}${for_}`;
      case 'gap':
        return `gaps of ${say(value, 'height', units)} or less low down${for_}`;
      case 'top':
        return `the top at ${say(value, 'height', units)}${for_}`;
      default:
        return `${value} ${about === 'live' ? 'live strands' : 'strands'} at least${for_}`;
    }
  });
  if (words.length === 0) return null;
  return <p className="mt-1">Why these heights: {words.join('; ')}.</p>;
}

/** The order to take, the figure that decided, and what would change the choice. */
export function Advice({ line, comparison }: { line: Line; comparison: Comparison }) {
  const cat = useCatalogue();
  const units = useUnits();
  const perMetre = usePerMetre();
  const { rows, recommended, because, close, turn_ohm_m, soil_ohm_m } = comparison;
  const best = rows.find((r) => r.order === recommended);
  if (!best) return <p className="mb-3">No order keeps every requirement of this line together.</p>;
  const live = rows.find((r) => r.order === 'live');
  const felt = (r: Row) => {
    const w = r.worst!;
    const way = w.way === 'hoof' ? 'through the hoof' : 'between strands';
    const animal = cat.animals[cat.profiles[w.profile]!.animal]!.name.toLowerCase();
    return `in the ${cat.seasons[w.season]!.name.toLowerCase()} season ${/^[aeiou]/.test(animal) ? 'an' : 'a'} ${animal} feels ${kv(w.volts_V)} ${way}, of ${kv(w.want_V)} wanted`;
  };
  const kv = (v: number) => say(v, 'fineVolt', units);
  const soil = (rho: number) => say(rho, 'resistivity', units);
  const decided =
    because === 'unfed'
      ? 'No energiser feeds this line yet: chosen by cost alone.'
      : because === 'nearest'
        ? `Nothing keeps the aim here; this comes nearest: ${felt(best)}. A stronger unit or fewer leaks do the rest: see Power.`
        : recommended === 'live' || !live?.worst || live.worst.share >= 1
          ? `It keeps the aim at its worst: ${felt(best)}. It costs ${perMetre(best.cost_per_m)}.`
          : `With all live, ${felt(live)}: too little. With this, ${felt(best)}.`;
  const turns: string[] = [];
  const almost = rows.find((r) => r.order === close);
  if (almost)
    turns.push(
      `Too close to call against ${cat.orders[almost.order]!.name.toLowerCase()}: with that, ${felt(almost)}; leakage and soil are no surer. It costs ${perMetre(almost.cost_per_m)}.`,
    );
  if (turn_ohm_m !== null) {
    turns.push(
      recommended === 'turns'
        ? `On soil below ${soil(turn_ohm_m)} in the driest month all live would do; it is taken as ${soil(soil_ohm_m.dry)}. Measure it.`
        : `On soil above ${soil(turn_ohm_m)} in the driest month the return through the hoof fails and live and earth by turns is better; it is taken as ${soil(soil_ohm_m.dry)}.`,
    );
  }
  if (recommended === 'turns')
    turns.push(
      'The earth strands return through rods of their own, counted in; an earth strand all the way to the energiser is better still.',
    );
  const cutOut = rows.find((r) => r.order === 'switched' && r.strands);
  if (recommended === 'live' && cutOut)
    turns.push(
      `Where grass is cut late, the lowest strand on a cut-out saves ${say(best.upkeep_h_per_km - cutOut.upkeep_h_per_km, 'upkeep', units)} of upkeep for ${perMetre(cutOut.cost_per_m - best.cost_per_m)}.`,
    );
  if (!line.stepOver) turns.push('If people step over it, the top stays cold.');
  return (
    <div className="border-ink mb-4 border-l-4 pl-3">
      <p>
        <strong>
          {cat.orders[recommended!]!.name}, {best.strands!.length} strands.
        </strong>{' '}
        {decided}
      </p>
      <Heights line={line} />
      <p className="label mt-1">What would change it: {turns.join(' ')}</p>
    </div>
  );
}
