/**
 * What an animal feels at a place of the fence: a load of the pulse's network, through its hooves to the soil, or
 * between a live and an earth strand, whose current comes home by metal.
 */
import { recordOf, type Animal, type SeasonId } from '../plan/catalogue.js';
import { simulate } from '../pulse/simulate.js';
import { assemble, drive, factorOf } from './assembly.js';
import { circuitOf } from './circuit.js';
import { strandName } from './joined.js';
import { earthOf, earthPart } from './earthSide.js';
import { carries } from './leakage.js';
import { pulseNet, type Place } from './pulseNet.js';
import { unitOf } from './unit.js';
import { pulseOptions } from './volts.js';
import { insideOf, type Network } from './wired.js';

/** The network as it is seen from a place: peak volts with nothing touching, and what it stands behind. */
export interface Seen {
  /** What an ideal circuit would ring up to, V. */
  readonly open_V: number;
  /** No place reads more than the plate's open volts, V. */
  readonly most_V: number;
  readonly self_ohm: number;
}

export interface Felt {
  /** Peak across the animal itself, without its hooves' contact to the soil, V. */
  readonly volts_V: number;
  readonly amps_A: number;
}

/** Load that the network is probed with, ohm: about what an animal on moist ground is. */
const PROBE = 1000;
/** As good as nothing touching, ohm. */
const NOTHING = 1e7;

/** Cells of a probe are so many times longer: its ratio is wanted, not its front. */
const COARSE = 2;

/**
 * The network seen from a place, through the soil and by its earth strands.
 * One pulse with nothing touching and one with a probe: between them the peak follows a resistance behind the open
 * volts within a few per cent [derived; held against pulses with the animal itself in the tests].
 * @param open_V peak to soil there with nothing touching, where it is known and not held down to the plate's
 */
export function seenAt(
  net: Network,
  season: SeasonId,
  place: Place,
  open_V: number | null = null,
): { soil: Seen | null; between: Seen | null } {
  const unit = unitOf(net.energiser, net.cat);
  const home = returnOf(net, season, place);
  const of = (by: By, r_ohm: number): number | null =>
    touched(net, season, place, { by, r_ohm, peaksAlone: true })?.peak_V ?? null;
  const seen = (by: By, series_ohm: number): Seen | null => {
    const open = by === 'soil' && open_V !== null ? open_V : of(by, NOTHING);
    const all = PROBE + series_ohm;
    const probe = of(by, all);
    if (open === null || probe === null) return null;
    const self_ohm = Math.max(0, all * (open / probe - 1)) + series_ohm;
    return { open_V: open, most_V: unit.plate.open_V, self_ohm };
  };
  const soil = seen('soil', 0);
  const between =
    home?.by === 'metal'
      ? seen('metal', home.ohm)
      : home && soil && { ...soil, self_ohm: soil.self_ohm + home.ohm };
  return { soil, between };
}

/**
 * How the current of an animal between strands comes home: by metal to the unit's terminal, or from earth strands
 * that hang on rods of their own through the soil. Null: the line has no earth strand, or no live one.
 */
function returnOf(
  net: Network,
  season: SeasonId,
  place: Place,
): { by: 'metal' | 'soil'; ohm: number } | null {
  const line = net.wired[place.line]!.line;
  const k = line.strands.findIndex((s) => s.duty === 'earth' && carries(s, season));
  const live = line.strands.some((s) => s.duty === 'live' && carries(s, season));
  if (k < 0 || !live) return null;
  const a = assemble(earthPart(circuitOf(net, season)));
  const marks = net.topology.marks[place.line]!;
  const { runs } = net.wired[place.line]!;
  const run = Math.max(0, runs.findIndex((r) => place.at_m >= r.from_m && place.at_m <= r.to_m)); // prettier-ignore
  const near = insideOf(runs[run]!, marks).reduce((x, m) =>
    Math.abs(m.s - place.at_m) < Math.abs(x.s - place.at_m) ? m : x,
  );
  const node = a.nodes.find(near.location, strandName(place.line, k, run));
  if (node === undefined || a.row[node]! < 0) return null;
  const home = a.groups.of[node] === a.groups.of[a.earth] ? a.earth : -1;
  const volts = drive(a, factorOf(a), home, node);
  return {
    by: home < 0 ? 'soil' : 'metal',
    ohm: volts[node]! - (home < 0 ? 0 : volts[home]!),
  };
}

/** What an animal feels there. @param contact_ohm what stands in series with it: hooves on soil */
export function felt(seen: Seen, body_ohm: number, contact_ohm: number): Felt {
  const all = contact_ohm + body_ohm;
  const amps_A = Math.min(seen.most_V / all, seen.open_V / (seen.self_ohm + all));
  return { volts_V: amps_A * body_ohm, amps_A };
}

/**
 * Energy of one pulse in an animal, J, by a pulse of its own to the very end: whether the unit's switch stays closed
 * turns on the load, so that no rule leads from one resistance to another. No more than the unit puts out.
 */
export function energyIn(
  net: Network,
  season: SeasonId,
  place: Place,
  animal: { readonly by: By; readonly body_ohm: number; readonly contact_ohm: number },
): number | null {
  const { by, body_ohm, contact_ohm } = animal;
  const home = by === 'metal' ? returnOf(net, season, place) : null;
  const r_ohm = body_ohm + contact_ohm + (home?.ohm ?? 0);
  const run = touched(net, season, place, {
    by: home?.by ?? 'soil',
    r_ohm,
    peaksAlone: false,
  });
  if (!run) return null;
  const { plate, yield: share } = unitOf(net.energiser, net.cat);
  return Math.min(plate.output_J, (run.energy_J * share * body_ohm) / r_ohm);
}

type By = 'soil' | 'metal';

/** The standard's longest pulse is over by then, s. */
const END = 2e-3;

/** One pulse with something bridging at a place. */
function touched(
  net: Network,
  season: SeasonId,
  place: Place,
  what: { readonly by: By; readonly r_ohm: number; readonly peaksAlone: boolean },
): { peak_V: number; energy_J: number } | null {
  const pulse = pulseNet(net, season, { loads: [{ ...place, r_ohm: what.r_ohm }] });
  const load = pulse?.loads[0];
  if (!pulse || !load) return null;
  const look = pulseOptions(pulse, what.peaksAlone);
  const run = simulate(
    {
      source: unitOf(net.energiser, net.cat).source,
      at: pulse.at,
      earth_ohm: earthOf(net, season),
      lines: pulse.lines,
      ...(what.by === 'soil' ? { loads: [load] } : { back: load }),
    },
    {
      ...look,
      cell_m: COARSE * look.cell_m!,
      until_s: what.peaksAlone ? look.until_s : END,
      peaksUntil_s: look.until_s,
    },
  );
  return what.by === 'soil'
    ? { peak_V: run.peak_V[run.nodes.get(load.node)!]!, energy_J: run.load_J[0]! }
    : run.back;
}

/** Resistance of two hooves on soil, as surface discs in parallel, ohm [published: rho/(4 b) each]. */
export const hoofContact = (rho_ohm_m: number, radius_m: number): number =>
  rho_ohm_m / (8 * radius_m);

/** Volts across an animal on moist ground at a stiff fence that reads its aim. */
export const wantOf = (aim_V: number, animal: Animal, moist_ohm_m: number): number =>
  (aim_V * animal.body_ohm) / (animal.body_ohm + hoofContact(moist_ohm_m, animal.hoof_m));

/** The animal of a profile. */
export const animalOf = (cat: Network['cat'], profile: string): Animal =>
  recordOf(cat.animals, recordOf(cat.profiles, profile).animal);
