/** The volts of a season as they are painted on the map. */
import { say, type Units } from '../../core/base/units.js';
import { figure, type Catalogue, type SeasonId } from '../../core/plan/catalogue.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import type { Painted } from '../land/shown.js';
import type { PaintedLook } from '../land/shown.js';

/** Below this share of the aim a stretch is far short. */
const FAR = 0.6;

/** How volts stand against an aim. @param reserve share that is asked for beyond it */
export const lookOf = (v_V: number, aim_V: number, reserve: number): PaintedLook =>
  v_V <= 0
    ? 'dead'
    : v_V < FAR * aim_V
      ? 'far'
      : v_V < aim_V
        ? 'short'
        : v_V < (1 + reserve) * aim_V
          ? 'holds'
          : 'ample';

export const aimOf = (report: Report, line: string, cat: Catalogue): number =>
  report.lines[line]?.requirement?.aim_V ?? figure(cat, 'network.aimDefault');

/** Every line of the property by what it carries, its least volts beside it, the worst place of each unit. */
export function paintedOf(
  plan: Plan,
  report: Report,
  season: SeasonId,
  units: Units,
  cat: Catalogue,
): Omit<Painted, 'land'> {
  const stretches: Painted['stretches'][number][] = [];
  const words: Record<string, string> = {};
  const fed = new Set<string>();
  const pins: Painted['pins'][number][] = [];
  for (const e of Object.values(report.energisers)) {
    const of = e.seasons[season];
    if (!of) continue;
    for (const [line, { s_m, v_V }] of Object.entries(of.lines)) {
      const own = plan.lines[line];
      if (!own) continue;
      fed.add(line);
      const aim = aimOf(report, line, cat);
      for (let k = 0; k + 1 < s_m.length; k++) {
        const look = lookOf(Math.min(v_V[k]!, v_V[k + 1]!), aim, plan.sizing.reserve);
        const last = stretches.at(-1);
        if (last?.line === line && last.look === look && last.to_m === s_m[k])
          stretches[stretches.length - 1] = { ...last, to_m: s_m[k + 1]! };
        else stretches.push({ line, from_m: s_m[k]!, to_m: s_m[k + 1]!, look });
      }
      const live = v_V.filter((v) => v > 0);
      words[line] = `${own.name}  ${live.length ? say(Math.min(...live), 'volt', units) : 'dead'}`;
    }
    if (of.worst && plan.lines[of.worst.line])
      pins.push({
        at: pointAt(plan.lines[of.worst.line]!.vertices, of.worst.at_m),
        words: `worst: ${say(of.worst.v_V, 'volt', units)}`,
        strong: true,
      });
  }
  for (const [id, line] of Object.entries(plan.lines)) {
    if (fed.has(id)) continue;
    const total = report.lines[id]?.plan_m ?? 0;
    stretches.push({ line: id, from_m: 0, to_m: total, look: 'dead' });
    words[id] =
      `${line.name}  ${line.strands.some((s) => s.duty === 'live') ? 'dead' : 'no live strand'}`;
  }
  return { stretches, words, pins };
}
