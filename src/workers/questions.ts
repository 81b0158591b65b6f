/** Questions of the Power step, off the main thread and beside the evaluation: none of them keeps a hand waiting. */
import { within, type Result, type Steps } from '../core/base/steps.js';
import { bothWays, type BothWays } from '../core/bothWays.js';
import { madeOf, plannedOf, type BuildAsked } from '../core/building.js';
import { checksOf, type Check } from '../core/build/inspect.js';
import type { Planned } from '../core/build/planned.js';
import { splitFence, type Split } from '../core/edit/split.js';
import { createEvaluator } from '../core/evaluate.js';
import { PARTS, WIRED } from '../core/parts/index.js';
import { createPipeline } from '../core/pipeline.js';
import { seasonsOf, type SeasonId } from '../core/plan/catalogue.js';
import { catalogue } from '../core/plan/shipped.js';
import { ownCatalogue } from '../core/plan/ownCatalogue.js';
import type { Energiser, Line, PatchStep, Plan, Point, Strand } from '../core/plan/schema.js';
import { apart, oneMore, type Apart, type Designed } from '../core/compare/apart.js';
import { otherKinds, ownKind, type KindRow } from '../core/compare/kinds.js';
import { prospectOf, soilUnder, type Shock } from '../core/compare/shock.js';
import { animalOf, energyIn, hoofContact } from '../core/power/feel.js';
import { candidatesInSteps, type Candidate } from '../core/power/sizing.js';
import type { Beside } from '../core/power/pulseNet.js';
import { voltsOf, type Volts } from '../core/power/volts.js';
import type { Network } from '../core/power/wired.js';
import { earthBench, type EarthRow } from '../core/sizing/earthBench.js';
import { roomToGrow } from '../core/sizing/grow.js';
import { feedPlacesInSteps, type FeedPlace } from '../core/sizing/places.js';
import {
  lowestOff,
  remediesInSteps,
  withStrands,
  type Helps,
  type Remedy,
} from '../core/sizing/remedies.js';
import { sampler, type Sure } from '../core/sizing/sure.js';
import { decidingSeason, scoreOf, type Score } from '../core/sizing/worst.js';
import { supplyList } from '../core/supplies/takeoff.js';
import { cutWires, type PartCoil, type WireCut } from '../core/supplies/wireCuts.js';
import type { Ground } from '../core/terrain/ground.js';
import { breakCost, type Break, type BreakCost } from '../core/wiring/breaking.js';
import { cutOutsOf, type CutOuts } from '../core/wiring/cutouts.js';
import { strongerTies, type Stronger } from '../core/wiring/stronger.js';
import { agedOf, CONNECTORS, type Aged } from '../core/wiring/ageing.js';
import { applyPatch, edit } from '../formats/patch.js';
import { roundQuestions } from './rounds.js';
import { createTurns, type Asking } from './turns.js';

let pipeline = createPipeline();
let evaluate = createEvaluator(PARTS, pipeline);
let wiring = createPipeline(WIRED);
let plan: Plan | null = null;
let ground: Ground | null = null;
/** The networks of the plan; null: nobody has asked one yet. */
let known: Readonly<Record<string, Network>> | null = null;

/** What is felt, with the energy of a pulse in the animal, J. */
export type Touched = Shock & { readonly energy_J: number | null };

/** A fence made into two: what is to be done, and the volts of both. */
export interface SplitOffer {
  readonly split: Split;
  readonly patch: readonly PatchStep[];
  readonly scores: readonly { readonly energiser: string; readonly score: Score | null }[];
}

/** A plan worked through without its volts: what hangs together, what stands, what it takes. */
const workedOf = (of: Plan) => pipeline(of, ground!, catalogue, { hurry: 'networks' });

const networksOf = (of: Plan): Record<string, Network> => {
  const { whole, cat } = wiring(of, ground!, catalogue, { hurry: 'networks' });
  const { wired, topology, groups } = whole.power;
  return Object.fromEntries(
    groups.flatMap(({ lines, energisers }) =>
      energisers.map((energiser: Energiser) => [
        energiser.id,
        { energiser, ids: lines, wired, topology, plan: of, cat } satisfies Network,
      ]),
    ),
  );
};

const networks = (): Readonly<Record<string, Network>> =>
  (known ??= plan && ground ? networksOf(plan) : {});

const withNet = <R>(id: string, ask: (net: Network) => R): R | null => {
  const net = networks()[id];
  return net ? ask(net) : null;
};

/**
 * A remedy that would bring a new finding is not offered: what would be found stands beside it.
 * @param known ids of what is found without it
 */
function judged(remedy: Remedy, known: ReadonlySet<string>): Remedy {
  if (!remedy.patch?.length) return remedy;
  const bad = findings(applyPatch(plan!, remedy.patch)).find((f) => f.kind !== 'confirm' && !known.has(f.id)); // prettier-ignore
  return bad ? { ...remedy, patch: null, but: `then it would be found: ${bad.title}` } : remedy;
}
const findings = (of: Plan) => evaluate(of, ground!, catalogue, { mends: 0 }).findings;

const designed = (of: Plan): Designed => ({
  plan: of,
  report: evaluate(of, ground!, catalogue, { mends: 0 }),
  cat: ownCatalogue(catalogue, of),
});
const withLine = (of: Plan, line: Line): Plan => ({ ...of, lines: { ...of.lines, [line.id]: line } }); // prettier-ignore

function* remediesIn(net: Network): Steps<Helps | null> {
  const places = yield* within(feedPlacesInSteps(net, plan!, { coarse: true }), 0, 0.4);
  return yield* within(remediesInSteps(net, places), 0.4, 1);
}

/** Samples that one call draws before it answers, so that a stop is heard. */
const AT_ONCE = 10;
let drawing: { key: string; sampler: ReturnType<typeof sampler> } | null = null;

/** Is given the plan that is asked about from now on, and its ground where that has changed. */
export function lay(newPlan: Plan, newGround: Ground | null): void {
  plan = newPlan;
  if (newGround) {
    ground = newGround;
    pipeline = createPipeline();
    evaluate = createEvaluator(PARTS, pipeline);
    wiring = createPipeline(WIRED);
  }
  known = null;
  drawing = null;
}

/** What is long comes in steps; whoever asks has the answer at last. */
export const questions = {
  ...roundQuestions(
    (unit) => networks()[unit] ?? null,
    () => ground,
  ),
  /** Works out what others rest on, before one of them is asked. */
  ahead(what: 'networks' | 'worked'): null {
    if (plan && ground) void (what === 'networks' ? networks() : workedOf(plan));
    return null;
  },
  bothWays: (line: string): BothWays | null =>
    plan && ground ? bothWays(line, plan, ground, pipeline) : null,
  units: (id: string): Steps<Candidate[]> | null => withNet(id, candidatesInSteps),
  places: (id: string, pressed: Point | null): Steps<FeedPlace[]> | null =>
    withNet(id, (net) => feedPlacesInSteps(net, plan!, { pressed })),
  /** What would help, with what each brings; whether one may be done is another question. */
  remedies: (id: string): Steps<Helps | null> | null => withNet(id, remediesIn),
  /** The same remedies, each held against the rules. */
  *judged(remedies: readonly Remedy[]): Steps<Remedy[]> {
    const before = new Set(findings(plan!).map((f) => f.id));
    const out: Remedy[] = [];
    for (const remedy of remedies) {
      yield out.length / remedies.length;
      out.push(judged(remedy, before));
    }
    return out;
  },
  room: (id: string) => withNet(id, roomToGrow),
  /** By kind of connector, what aged ties leave at the place of the property that loses most. */
  aged(season: SeasonId): Aged[] {
    const all = Object.values(networks()).map((net) => agedOf(net, season));
    return CONNECTORS.map(
      (kind) =>
      all
        .map((of) => of.find((a) => a.kind === kind)!)
        .reduce((worst, a) => (a.line !== null && a.left < worst.left ? a : worst), { kind, left: 1, line: null }), // prettier-ignore
    );
  },
  /** By unit: the fewest ties more so that no single break darkens more than a share. */
  stronger: (share: number): Stronger[] =>
    Object.values(networks()).flatMap((net) => strongerTies(net, share) ?? []),
  breakCost: (season: SeasonId, at: Break): BreakCost | null => {
    const net = Object.values(networks()).find((n) => n.ids.includes(at.line));
    return net ? breakCost(net, season, at) : null;
  },
  /** By unit: switches that halve the search of a fault. */
  cutOuts: (part_min: number): { energiser: string; found: CutOuts }[] =>
    Object.values(networks()).flatMap((net) => {
      const found = cutOutsOf(net, part_min);
      return found ? [{ energiser: net.energiser.id, found }] : [];
    }),
  /** The fence made into two, and what both then have; null: it cannot be done at ends of lines. */
  split(id: string): SplitOffer | null {
    const whole = plan!;
    let split: Split | null = null;
    const cat = networks()[id]?.cat ?? catalogue;
    const { next, patch } = edit(whole, (d) => void (split = splitFence(d, id, cat)));
    const made = split as Split | null;
    if (!made) return null;
    const after = networksOf(next);
    return {
      split: made,
      patch,
      scores: [id, made.energiser].map((e) => ({
        energiser: e,
        score: after[e] ? decidingSeason(after[e]) : null,
      })),
    };
  },
  /** The coils of every wire, as they are cut. @param parts coils that were begun */
  cut: (parts: readonly PartCoil[]): WireCut[] | null => {
    if (!plan || !ground) return null;
    const { cat, lines, counted } = workedOf(plan);
    return cutWires(plan, { lines, supplies: supplyList(counted(), cat, plan) }, cat, parts);
  },
  /** What sets b apart from a; null stands for the plan as it is. */
  apart: (a: Plan | null, b: Plan | null): Apart | null =>
    plan && ground ? apart(designed(a ?? plan), designed(b ?? plan)) : null,
  /** What one strand more on a line would change. */
  oneMore(line: string): { readonly strand: Strand; readonly apart: Apart } | null {
    const of = plan?.lines[line];
    const more = of && ground ? oneMore(of.strands) : null;
    if (!more || !of || !plan) return null;
    return { strand: more.strand, apart: apart(designed(plan), designed(withLine(plan, { ...of, strands: more.strands }))) }; // prettier-ignore
  },
  /** A line with the strands of a design of the property. */
  withDesign(line: string, design: string): Apart | null {
    const [of, named] = [plan?.lines[line], plan?.designs?.[design]];
    if (!of || !named || !plan || !ground) return null;
    return apart(designed(plan), designed(withLine(plan, { ...of, strands: named.strands })));
  },
  kinds: (line: string): { rows: KindRow[]; own: KindRow } | null => {
    const of = plan?.lines[line];
    if (!plan || !ground || !of) return null;
    const { report, cat } = designed(plan);
    const lineReport = report.lines[line]!;
    return { rows: otherKinds(lineReport, cat), own: ownKind(of, plan, report, cat) };
  },
  /** The work, planned; with what is thought of beside it. */
  work: (asked: BuildAsked): Planned | null =>
    plan && ground ? plannedOf(madeOf(plan, workedOf(plan)), asked) : null,
  /** What is inspected, in the order in which one walks. */
  checks: (): Check[] | null => (plan && ground ? checksOf(madeOf(plan, workedOf(plan))) : null),
  earth: (id: string): EarthRow[] | null => withNet(id, earthBench),
  /** What each kind of stock of a line feels at its worst place in every season. */
  feel: (
    id: string,
    line: string,
  ):
    | { season: SeasonId; at_m: number; open_V: number; rho_ohm_m: number; shocks: Touched[] }[]
    | null =>
    withNet(id, (net) => {
      const { of } = workedOf(plan!);
      const asked = of[line]?.stock.asked;
      const own = plan!.lines[line];
      if (!asked || !own) return [];
      return seasonsOf(plan!, net.cat).flatMap((season) => {
        const seen = prospectOf(line, net, season);
        if (!seen) return [];
        const rho = soilUnder(of[line]!.hold.posts, plan!, season, own.snow ?? false, net.cat);
        const place = { line, at_m: seen.at_m };
        const shocks = asked.needs.flatMap((need) => {
          const { body_ohm, hoof_m } = animalOf(net.cat, need.profile);
          return seen.feel(need, rho).map((s) => {
            const contact_ohm = s.way === 'hoof' ? hoofContact(rho, hoof_m) : 0;
            const by = s.way === 'hoof' ? 'soil' : 'metal';
            return { ...s, energy_J: energyIn(net, season, place, { by, body_ohm, contact_ohm }) };
          });
        });
        return [{ season, at_m: seen.at_m, open_V: seen.open_V, rho_ohm_m: rho, shocks }];
      });
    }),
  /** Volts with something thought of beside the plan; nothing is saved. */
  whatIf: (
    id: string,
    season: SeasonId,
    beside: Beside,
    lowest: 'on' | 'off',
  ): { volts: Volts; score: Score | null } | null =>
    withNet(id, (net) => {
      const volts = voltsOf(lowest === 'off' ? withStrands(net, lowestOff) : net, season, beside);
      return volts && { volts, score: scoreOf(volts) };
    }),
  /** Draws some more properties by lot; null: nothing is fed. */
  sure(id: string, line: string | null, other: string | null, seed: number): Sure | null {
    const key = `${id} ${line} ${other} ${seed}`;
    if (drawing?.key !== key) {
      const made = withNet(id, (net) => sampler(net, { line, other, seed }));
      drawing = made && { key, sampler: made };
    }
    if (!drawing) return null;
    for (let k = 0; k < AT_ONCE; k++) if (!drawing.sampler.next()) return null;
    return drawing.sampler.sum();
  },
};

type Questions = typeof questions;
/** The questions as they look to those who ask. */
export type QuestionsApi = {
  readonly [K in keyof Questions]: (
    ...args: Parameters<Questions[K]>
  ) => Promise<Result<ReturnType<Questions[K]>>>;
};

const inTurn = createTurns();
/** What is waited for, by the ticket of whoever asks. */
const waiting = new Set<Asking & { readonly ticket: number }>();

export const api = {
  /** After what is being answered: that is about the plan before. */
  open: (...given: Parameters<typeof lay>) => inTurn({ stopped: false }, () => lay(...given)),
  /**
   * Answers one question after another.
   * @param told how far it is, between two turns
   * @returns null also where it was stopped
   */
  async ask<K extends keyof Questions>(
    ticket: number,
    name: K,
    args: Parameters<Questions[K]>,
    told?: (share: number) => void,
  ): Promise<unknown> {
    const own = { ticket, stopped: false };
    waiting.add(own);
    const question = questions[name] as (...args: unknown[]) => unknown;
    try {
      return await inTurn(own, () => question(...args), told);
    } finally {
      waiting.delete(own);
    }
  },
  /** Nobody waits for it any more. */
  stop(ticket: number): void {
    for (const own of waiting) own.stopped ||= own.ticket === ticket;
  },
};
export type Answering = typeof api;
