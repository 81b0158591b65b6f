/** What is felt least on a network: the animal, the line and the season in which the ground gives back too little. */
import { figure, seasonsOf, type SeasonId } from '../plan/catalogue.js';
import { animalOf, felt, hoofContact, wantOf } from '../power/feel.js';
import type { Volts } from '../power/volts.js';
import type { Network } from '../power/wired.js';
import type { Requirement } from '../report/schema.js';
import { prospectOf, soilUnder, type Shock } from './shock.js';

/** A line whose animals are asked. */
export interface FeltLine {
  readonly asked: Requirement | null;
  /** Where its posts stand. */
  readonly posts: readonly { readonly e: number; readonly n: number }[];
  readonly snow: boolean;
}

export interface LeastFelt extends Shock {
  readonly line: string;
  readonly at_m: number;
  /** Volts on the fence there, nothing touching. */
  readonly open_V: number;
  /** Resistivity under the hooves, ohm m. */
  readonly rho_ohm_m: number;
  /** Every line on which so little is felt, the worst first. */
  readonly lines: readonly string[];
}

/** What a network stands behind, about, ohm: only to see which line is worth looking at closely. */
const ABOUT = 250;

/**
 * The least of what is felt against what the aim gives on moist ground. Every line is looked at with a rough
 * figure, the worst of them with pulses of its own: through the hoof, and between strands where it reaches both.
 */
export function leastFelt(
  net: Network,
  lines: Readonly<Record<string, FeltLine>>,
  known: readonly Volts[],
): LeastFelt | null {
  const { cat, plan } = net;
  const rough = new Map<string, { line: string; season: SeasonId; share: number }>();
  const soils = new Map<string, number>();
  const rhoOf = (line: string, season: SeasonId): number => {
    const key = `${line} ${season}`;
    let rho = soils.get(key);
    if (rho === undefined) {
      const { posts, snow } = lines[line]!;
      soils.set(key, (rho = soilUnder(posts, plan, season, snow, cat)));
    }
    return rho;
  };
  for (const volts of known) {
    if (!seasonsOf(plan, cat).includes(volts.season) || volts.season === 'weedy') continue;
    for (const [line, { v_V }] of Object.entries(volts.lines)) {
      const asked = lines[line]?.asked;
      // Stock are often off the frozen ground; where they are not, the line says that snow lies there.
      if (volts.season === 'frozen' && !lines[line]?.snow) continue;
      const fed = v_V.filter((v) => v > 0);
      if (!asked || fed.length === 0) continue;
      const v = Math.min(...fed);
      const rho = rhoOf(line, volts.season);
      const paired = net.wired[line]!.line.strands.some((s) => s.duty === 'earth');
      for (const need of asked.needs) {
        const animal = animalOf(cat, need.profile);
        const seen = { open_V: v, most_V: v, self_ohm: ABOUT };
        // Between strands no ground is in the way; whether it reaches both is seen below.
        const contact = paired ? 0 : hoofContact(rho, animal.hoof_m);
        const want = wantOf(need.aim_V, animal, figure(cat, 'shock.moist'));
        const share = felt(seen, animal.body_ohm, contact).volts_V / want;
        if (share < (rough.get(line)?.share ?? Infinity))
          rough.set(line, { line, season: volts.season, share });
      }
    }
  }
  const order = [...rough.values()].sort((a, b) => a.share - b.share);
  if (!order[0]) return null;
  const { line, season } = order[0];
  const volts = known.find((v) => v.season === season)!;
  const seen = prospectOf(line, net, season, volts);
  if (!seen) return null;
  const rho_ohm_m = rhoOf(line, season);
  const all = lines[line]!.asked!.needs.map((need) =>
    seen.feel(need, rho_ohm_m).reduce((a, b) => (b.volts_V > a.volts_V ? b : a)),
  );
  const least = all.reduce((a, b) => (b.volts_V / b.want_V < a.volts_V / a.want_V ? b : a));
  const enough = figure(cat, 'shock.least');
  const rest = order.slice(1).filter((o) => o.share < enough);
  const short = [line, ...rest.map((o) => o.line)];
  return { ...least, line, at_m: seen.at_m, open_V: seen.open_V, rho_ohm_m, lines: short };
}
