/** What each kind of stock feels of a make-up at the line's worst point, through hoof and between strands. */
import { figure, recordOf, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import { soilAt } from '../land/things.js';
import type { Energiser, Plan } from '../plan/schema.js';
import type { Topology } from '../plan/topology.js';
import { carries, circuitOf, strandName } from '../power/circuit.js';
import { earthResistance, strandRods } from '../power/earthing.js';
import { modelLoadLine } from '../power/loadLine.js';
import type { Unit } from '../power/network.js';
import { surgeCap, type AimedLine } from '../power/power.js';
import { felt, hoofContact, seenFrom, type Bridge } from '../power/touch.js';
import type { Need, Post } from '../report/schema.js';

/** The seasons that a make-up is compared in: the worst for the return, the worst for leakage. */
export const COMPARED = ['dry', 'wet'] as const satisfies readonly SeasonId[];
export type ComparedSeason = (typeof COMPARED)[number];

export interface Shock {
  readonly profile: string;
  readonly season: ComparedSeason;
  readonly way: 'hoof' | 'between';
  /** Peak across the animal, V; amperes through it; energy of a pulse, J. */
  readonly volts_V: number;
  readonly amps_A: number;
  readonly energy_J: number;
  /** What the aim gives the same animal on moist ground, V. */
  readonly want_V: number;
}

/** The network that a line hangs on. */
export interface Fed {
  readonly energiser: Energiser;
  readonly lines: readonly string[];
  readonly wired: Readonly<Record<string, AimedLine>>;
  readonly topology: Topology;
  readonly plan: Pick<Plan, 'sizing' | 'soil' | 'things'>;
}

/** Volts across an animal on moist ground at a stiff fence that reads its aim. */
export function wantOf(need: Need, cat: Catalogue): number {
  const animal = recordOf(cat.animals, recordOf(cat.profiles, need.profile).animal);
  const moist = hoofContact(figure(cat, 'shock.moist'), animal.hoof_m);
  return (need.aim_V * animal.body_ohm) / (animal.body_ohm + moist);
}

/** Highest resistivity of the soil under the posts of a line in a season, ohm m. */
export function soilUnder(
  posts: readonly Pick<Post, 'e' | 'n'>[],
  plan: Pick<Plan, 'soil' | 'things'>,
  season: SeasonId,
  snow: boolean,
  cat: Catalogue,
): number {
  const state = `${cat.seasons[season]!.soil}_ohm_m` as const;
  const names = new Set(posts.map((p) => soilAt(plan, p)));
  const soil = Math.max(...[...names].map((s) => recordOf(cat.soils, s)[state]));
  // Snow and frost come in the season of the poorest return.
  return snow && season === 'dry' ? Math.max(soil, figure(cat, 'shock.snow')) : soil;
}

/** One season of a make-up: what an animal sees of the network, whatever the soil under its hooves. */
export interface Prospect {
  readonly season: ComparedSeason;
  readonly at_m: number;
  /** The same figure through hooves on soil of any resistivity, and between strands. */
  feel(need: Need, rho_ohm_m: number): Shock[];
}

/** The line as it would be with its strands, at its worst point in one season; null: not fed. */
export function prospectOf(
  line: string,
  fed: Fed,
  season: ComparedSeason,
  cat: Catalogue,
): Prospect | null {
  const { energiser, wired, topology, plan } = fed;
  const own = wired[line]!.line;
  const soil = recordOf(cat.soils, soilAt(plan, energiser));
  const circuit = circuitOf(
    energiser,
    fed.lines,
    wired,
    topology,
    season,
    plan.sizing.resistance,
    earthResistance(energiser, soil, cat.seasons[season]!.soil, cat),
    strandRods(plan, season, cat),
    cat,
  );
  if (circuit.energiser.hot_strands.length === 0) return null;
  let at_m = 0;
  const { unit, seen } = seenFrom(circuit, (solved) => {
    const worst = worstPlace(solved);
    if (!worst) return [];
    at_m = worst.at_m;
    return bridgesAt(worst.location, worst.strand);
  });
  const ground = seen[0];
  if (!ground?.seen) return null;
  const volts = modelLoadLine(recordOf(cat.energisers, energiser.model));
  const cap = surgeCap(energiser, wired, topology, circuit, cat);
  const pulse_s = figure(cat, 'shock.pulse') * 1e-6;

  return {
    season,
    at_m,
    feel: (need, rho) => {
      const animal = recordOf(cat.animals, recordOf(cat.profiles, need.profile).animal);
      const shock = (way: Shock['way'], at: (typeof seen)[number], contact: number): Shock => {
        const f = felt(unit, at.seen!, volts, cap, animal.body_ohm, contact);
        return {
          profile: need.profile,
          season,
          way,
          ...f,
          energy_J: (pulse_s * f.volts_V ** 2) / animal.body_ohm,
          want_V: wantOf(need, cat),
        };
      };
      const hoof = shock('hoof', ground, hoofContact(rho, animal.hoof_m));
      const between = seen
        .slice(1)
        .filter((s) => s.seen && middle(s.bridge) < need.reach_m)
        .map((s) => shock('between', s, 0));
      const least = between.reduce<Shock | null>(
        (a, b) => (!a || b.volts_V < a.volts_V ? b : a),
        null,
      );
      return least ? [hoof, least] : [hoof];
    },
  };

  function worstPlace(solved: Unit) {
    const live = new Set(
      own.strands.flatMap((s, i) =>
        s.duty === 'live' && carries(s, season) ? [strandName(line, i)] : [],
      ),
    );
    const places = new Map(topology.marks[line]!.map((m) => [m.location, m.s]));
    let worst: { location: string; strand: string; at_m: number; v: number } | null = null;
    for (const n of solved.nodes) {
      if (!live.has(n.strand) || n.v_v === null || n.v_v <= 0) continue;
      const at = places.get(n.location);
      if (at === undefined || (worst && n.v_v >= worst.v)) continue;
      worst = { location: n.location, strand: n.strand, at_m: at, v: n.v_v };
    }
    return worst;
  }

  /** To the soil from the worst strand, then between every live and earth strand side by side. */
  function bridgesAt(location: string, strand: string): Bridge[] {
    const out: Bridge[] = [{ location, strand, to: null }];
    own.strands.slice(1).forEach((b, i) => {
      const a = own.strands[i]!;
      if (!carries(a, season) || !carries(b, season) || a.duty === b.duty) return;
      const [live, earth] = a.duty === 'live' ? [i, i + 1] : [i + 1, i];
      out.push({ location, strand: strandName(line, live), to: strandName(line, earth) });
    });
    return out;
  }

  function middle(b: Bridge): number {
    const height = (name: string) => own.strands[Number(name.split('/').at(-1))]!.height_m;
    return (height(b.strand) + height(b.to!)) / 2;
  }
}
