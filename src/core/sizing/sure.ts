/** How sure the volts are: many properties as this one may be, by lot, each with inputs that are off by their spread. */
import { figure, recordOf, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import { soilAt } from '../land/things.js';
import { earthing, rodsOf } from '../power/earthing.js';
import { loadLineOf } from '../power/unit.js';
import {
  offeredUnits,
  plateOfUnit,
  unitOfPlate,
  type Unit,
  type UnitPlate,
} from '../power/unit.js';
import { grownTo, pulseNet } from '../power/pulseNet.js';
import { voltsBy } from '../power/volts.js';
import type { Network } from '../power/wired.js';
import { normal } from '../base/random.js';
import { readAt } from '../terrain/profile.js';
import { COARSE } from '../power/deciding.js';
import { decidingSeason } from './worst.js';

/** What is not known well, with the default that says how badly: a spread of the logarithm. */
export const WEAK = ['leakage', 'soil', 'inductance', 'resistance', 'plate', 'rise'] as const;
export type Weak = (typeof WEAK)[number];

export interface Sure {
  readonly season: string;
  readonly samples: number;
  /** Of 100 such seasons, how many keep the aim. */
  readonly holds: number;
  /** The same of another unit: the one to take, or the strongest allowed. */
  readonly other: { readonly model: string; readonly holds: number } | null;
  /** Volts at the worst point: one in ten is lower, the middle, one in ten is higher. */
  readonly worst_V: readonly [low: number, middle: number, high: number];
  readonly reading_V: readonly [low: number, middle: number, high: number];
  /** Share of the spread of the worst volts that comes from each input, greatest first. */
  readonly from: readonly { readonly weak: Weak; readonly share: number }[];
  /** The same three of ten along one line. */
  readonly along: {
    readonly line: string;
    readonly s_m: readonly number[];
    readonly low_V: readonly number[];
    readonly high_V: readonly number[];
  } | null;
}

const spreadOf = (weak: Weak, cat: Catalogue): number => figure(cat, `sure.${weak}`);

export interface SamplerOptions {
  /** Along which the band is wanted. */
  readonly line: string | null;
  /** A unit that is tried beside its own; the strongest allowed where none is named. */
  readonly other: string | null;
  readonly seed: number;
}

/** One drawing by lot after another; stop when enough. */
export function sampler(net: Network, { line, other, seed }: SamplerOptions) {
  const now = decidingSeason(net);
  const draw = normal(seed);
  const { cat, energiser, plan } = net;
  const plate = plateOfUnit(energiser, cat);
  const soil = recordOf(cat.soils, soilAt(plan, energiser));
  const drawn: { worst_V: number; share: number; reading_V: number; z: Record<Weak, number> }[] =
    [];
  const tracks: number[][] = [];
  const rival = rivalOf(net, other);
  const lots = now && lotsOf(net, now.season, line);
  let rivalHolds = 0;
  let s_m: number[] = [];
  return {
    /** Draws one; false: nothing is fed. */
    next(): boolean {
      if (!now || !lots) return false;
      const z = Object.fromEntries(WEAK.map((w) => [w, draw()])) as Record<Weak, number>;
      const f = (weak: Weak) => Math.exp(z[weak] * spreadOf(weak, cat));
      const typed: UnitPlate = {
        ...plate,
        stored_J: plate.stored_J * f('plate'),
        rise_us: (plate.rise_us ?? 10) * f('rise'),
      };
      const unit = unitOfPlate(typed);
      const earth_ohm = rodsOf(net, now.season) * f('soil');
      const lot = lots({ growth: f('leakage'), l: f('inductance'), r: f('resistance') });
      const volts = lot(unit, earth_ohm);
      if (!volts.worst) return false;
      const better = rival && lot(rival.unit, earth_ohm).worst;
      if (better && better.v_V >= better.aim_V) rivalHolds++;
      const dug = { ...soil, dry_ohm_m: soil.dry_ohm_m * f('soil'), damp_ohm_m: soil.damp_ohm_m * f('soil') }; // prettier-ignore
      const { reading_V } = earthing(energiser, dug, loadLineOf(plate), 0, cat).test;
      drawn.push({ worst_V: volts.worst.v_V, share: volts.worst.v_V / volts.worst.aim_V, reading_V, z }); // prettier-ignore
      if (volts.along) {
        s_m = volts.along.s_m;
        tracks.push(volts.along.v_V);
      }
      return true;
    },
    /** What the drawings so far say; null: none yet. */
    sum(): Sure | null {
      if (drawn.length === 0) return null;
      const worst = drawn.map((d) => Math.log(d.worst_V));
      const shares = WEAK.map((weak) => ({ weak, share: correlation(drawn.map((d) => d.z[weak]), worst) ** 2 })); // prettier-ignore
      const whole = Math.max(1e-12, shares.reduce((sum, s) => sum + s.share, 0)); // prettier-ignore
      return {
        season: now!.season,
        samples: drawn.length,
        holds: Math.round((100 * drawn.filter((d) => d.share >= 1).length) / drawn.length),
        other: rival && {
          model: rival.model,
          holds: Math.round((100 * rivalHolds) / drawn.length),
        },
        worst_V: three(drawn.map((d) => d.worst_V)),
        reading_V: three(drawn.map((d) => d.reading_V)),
        from: shares
          .map((s) => ({ ...s, share: s.share / whole }))
          .sort((a, b) => b.share - a.share),
        along:
          line === null || tracks.length === 0
            ? null
            : {
                line,
                s_m,
                low_V: s_m.map((_, k) => three(tracks.map((t) => t[k] ?? 0))[0]),
                high_V: s_m.map((_, k) => three(tracks.map((t) => t[k] ?? 0))[2]),
              },
      };
    },
  };
}

/**
 * Properties by lot on one network. What is built stays, and what varies is put into it: leakage is that of a bare fence and
 * so much more for what grows. Their pulses are coarse, and are taken by what a coarse pulse of the property as it is planned
 * makes of its fine one (docs/model.md, How sure). Null: nothing is fed.
 */
export function lotsOf(net: Network, season: SeasonId, line: string | null) {
  const [bare, grown] = [pulseNet(net, season, { growth: 0 }), pulseNet(net, season)];
  const fine = grown && voltsBy(net, season, grown);
  if (!bare || !grown || !fine?.worst) return null;
  const about = voltsBy(net, season, grown, { coarse: COARSE });
  if (!about.worst) return null;
  const times = fine.worst.v_V / about.worst.v_V;
  const own = line === null ? undefined : about.lines[line];
  const alongTimes = own?.s_m.map((s, k) => {
    const { s_m, v_V } = fine.lines[line!]!;
    return own.v_V[k]! > 0 ? readAt(s_m, v_V, s) / own.v_V[k]! : 1;
  });
  return (such: { readonly growth: number; readonly l: number; readonly r: number }) => {
    const pulse = grownTo(bare, grown, such);
    return (unit: Unit, earth_ohm: number) => {
      const { worst, lines: tracks } = voltsBy(net, season, pulse, { unit, earth_ohm, coarse: COARSE });
      const track = line === null ? undefined : tracks[line];
      return {
        worst: worst && { ...worst, v_V: times * worst.v_V },
        along: track && { s_m: track.s_m, v_V: track.v_V.map((v, k) => v * (alongTimes?.[k] ?? times)) },
      };
    };
  };
} // prettier-ignore

/** The unit that is named, else the strongest allowed; null: it is the energiser's own. */
function rivalOf({ energiser, cat }: Network, named: string | null) {
  const model = named ?? offeredUnits(cat).at(-1)?.[0];
  if (model === undefined || (model === energiser.model && !energiser.plate)) return null;
  return { model, unit: unitOfPlate(recordOf(cat.energisers, model)) };
}

function three(values: readonly number[]): [number, number, number] {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  return [at(0.1), at(0.5), at(0.9)];
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (x: readonly number[]) => x.reduce((s, v) => s + v, 0) / x.length;
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((v, k) => {
    ab += (v - ma) * (b[k]! - mb);
    aa += (v - ma) ** 2;
    bb += (b[k]! - mb) ** 2;
  });
  return aa * bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}
