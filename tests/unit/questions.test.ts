/** The worker of questions: what it answers is what the heart says of the plan that it was given last, and of no other. */
import { beforeEach, describe, expect, it } from 'vitest';
import { madeOf, plannedOf } from '../../src/core/building.js';
import { bothWays } from '../../src/core/bothWays.js';
import { checksOf } from '../../src/core/build/inspect.js';
import { apart, oneMore } from '../../src/core/compare/apart.js';
import { otherKinds, ownKind } from '../../src/core/compare/kinds.js';
import { prospectOf, soilUnder } from '../../src/core/compare/shock.js';
import { evaluate } from '../../src/core/evaluate.js';
import { createPipeline } from '../../src/core/pipeline.js';
import { seasonsOf } from '../../src/core/plan/catalogue.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { animalOf, energyIn, hoofContact } from '../../src/core/power/feel.js';
import { candidatesOf } from '../../src/core/power/sizing.js';
import { voltsOf } from '../../src/core/power/volts.js';
import { bandsOf } from '../../src/core/rounds/bands.js';
import { earthBench } from '../../src/core/sizing/earthBench.js';
import { roomToGrow } from '../../src/core/sizing/grow.js';
import { feedPlaces } from '../../src/core/sizing/places.js';
import { lowestOff, remediesOf, withStrands } from '../../src/core/sizing/remedies.js';
import { sampler } from '../../src/core/sizing/sure.js';
import { decidingSeason, scoreOf } from '../../src/core/sizing/worst.js';
import { supplyList } from '../../src/core/supplies/takeoff.js';
import { cutWires } from '../../src/core/supplies/wireCuts.js';
import { agedOf, CONNECTORS } from '../../src/core/wiring/ageing.js';
import { breakCost } from '../../src/core/wiring/breaking.js';
import { cutOutsOf } from '../../src/core/wiring/cutouts.js';
import { strongerTies } from '../../src/core/wiring/stronger.js';
import { applyPatch } from '../../src/formats/patch.js';
import { api as worker, lay, questions } from '../../src/workers/questions.js';
import { allAtOnce } from './atOnce.js';
import { energiser, FLAT, line, networkOf, plan, strands } from './scene.js';

const rows = () => strands([0.3, 0.5, 0.7, 0.9, 1.1]);
const some = (id: string, points: [number, number][], part: Partial<Line> = {}) => line(id, points, { strands: rows(), left: ['sheep'], ...part }); // prettier-ignore
/** A line with a corner, one that hangs on it, and one that nothing feeds. */
const p: Plan = plan(
  [
    some('a', [[0, 0], [600, 0], [600, 900]]),
    some('b', [[600, 400], [1500, 400]]),
    some('far', [[0, 3000], [300, 3000]]),
  ],
  { energisers: { unit: energiser('a', 100) }, designs: { two: { id: 'two', name: 'Two', strands: strands([0.5, 0.9]) } } },
); // prettier-ignore
const net = networkOf(p);
const report = evaluate(p, FLAT, catalogue, { mends: 0 });
const worked = createPipeline()(p, FLAT, catalogue);
const own = ownCatalogue(catalogue, p);
const with_ = (of: Plan, id: string, part: Partial<Line>): Plan => ({ ...of, lines: { ...of.lines, [id]: { ...of.lines[id]!, ...part } } }); // prettier-ignore
const designed = (of: Plan) => ({ plan: of, report: evaluate(of, FLAT, catalogue, { mends: 0 }), cat: ownCatalogue(catalogue, of) }); // prettier-ignore
/** As it comes through the door between two threads. */
const sent = <T>(answer: T): T => structuredClone(answer);

const api = { ...allAtOnce(questions), open: lay };

beforeEach(() => lay(p, FLAT));

describe('asked of a unit', () => {
  it('it answers as the heart does', () => {
    expect(sent(api.units('unit'))).toEqual(candidatesOf(net));
    expect(sent(api.places('unit', null))).toEqual(feedPlaces(net, p, { pressed: null }));
    expect(sent(api.places('unit', { e: 600, n: 500 }))).toEqual(feedPlaces(net, p, { pressed: { e: 600, n: 500 } })); // prettier-ignore
    expect(sent(api.room('unit'))).toEqual(roomToGrow(net));
    expect(sent(api.earth('unit'))).toEqual(earthBench(net));
    const helps = remediesOf(net, feedPlaces(net, p, { coarse: true }));
    expect(sent(api.remedies('unit'))).toEqual(helps);
  });

  it('what would help is held against the rules: one that brings a new finding is not offered, and says which', () => {
    const known = new Set(report.findings.map((f) => f.id));
    const { remedies } = api.remedies('unit')!;
    const judged = sent(api.judged(remedies));
    expect(judged.map((r) => r.id)).toEqual(remedies.map((r) => r.id));
    judged.forEach((r, k) => {
      const { patch } = remedies[k]!;
      if (!patch?.length) return expect(r).toEqual(remedies[k]);
      const after = evaluate(applyPatch(p, patch), FLAT, catalogue, { mends: 0 });
      const bad = after.findings.filter((f) => f.kind !== 'confirm' && !known.has(f.id));
      expect(r.patch).toEqual(bad.length > 0 ? null : patch);
      if (bad.length > 0) expect(r.but).toContain(bad[0]!.title);
    });
    // A patch that puts the lowest strand into the mud is found, whoever proposes it.
    const mud = { ...remedies[0]!, patch: [{ op: 'replace' as const, path: '/lines/a/strands/0/height_m', value: 0.02 }] }; // prettier-ignore
    expect(api.judged([mud])[0]).toMatchObject({ patch: null, but: expect.stringContaining('then it would be found: ') }); // prettier-ignore
  });

  it('what if: beside the plan, with the lowest strands on or off', () => {
    const beside = { breaks: [{ line: 'b', at_m: 300 }] };
    for (const lowest of ['on', 'off'] as const) {
      const volts = voltsOf(lowest === 'off' ? withStrands(net, lowestOff) : net, 'dry', beside)!;
      expect(sent(api.whatIf('unit', 'dry', beside, lowest))).toEqual({ volts, score: scoreOf(volts) }); // prettier-ignore
    }
  });

  it('what an animal feels, in every season, with the energy that passes through it', () => {
    const felt = sent(api.feel('unit', 'a'))!;
    expect(felt.map((f) => f.season)).toEqual(seasonsOf(p, own));
    for (const { season, at_m, open_V, rho_ohm_m, shocks } of felt) {
      const seen = prospectOf('a', net, season)!;
      expect([at_m, open_V]).toEqual([seen.at_m, seen.open_V]);
      expect(shocks.length).toBeGreaterThan(0);
      for (const s of shocks) {
        const { body_ohm, hoof_m } = animalOf(net.cat, s.profile);
        const contact_ohm = s.way === 'hoof' ? hoofContact(rho_ohm_m, hoof_m) : 0;
        const by = s.way === 'hoof' ? 'soil' : 'metal';
        expect(s.energy_J).toBe(energyIn(net, season, { line: 'a', at_m }, { by, body_ohm, contact_ohm })); // prettier-ignore
      }
    }
    expect(api.feel('unit', 'nobody')).toEqual([]);
  });

  it('what is felt over snow is felt by the soil under snow', () => {
    const snowed = with_(p, 'a', { snow: true });
    const under = (of: Plan, snow: boolean) => soilUnder(createPipeline()(of, FLAT, catalogue).of['a']!.hold.posts, of, 'frozen', snow, own); // prettier-ignore
    expect(under(snowed, true)).not.toBe(under(p, false));
    const frozen = () => api.feel('unit', 'a')!.find((f) => f.season === 'frozen')!.rho_ohm_m;
    expect(frozen()).toBe(under(p, false));
    api.open(snowed, null);
    expect(frozen()).toBe(under(snowed, true));
  });

  it('how sure: so many at a time, and anew for another question or another plan', () => {
    const by = sampler(net, { line: 'b', other: null, seed: 7 });
    for (let k = 0; k < 10; k++) by.next();
    const first = by.sum();
    for (let k = 0; k < 10; k++) by.next();
    const second = by.sum();
    expect(sent(api.sure('unit', 'b', null, 7))).toEqual(first);
    expect(sent(api.sure('unit', 'b', null, 7))).toEqual(second);
    expect(api.sure('unit', 'a', null, 7)?.samples).toBe(first?.samples);
    expect(sent(api.sure('unit', 'b', null, 7))).toEqual(first);
    api.open(p, null);
    expect(sent(api.sure('unit', 'b', null, 7))).toEqual(first);
  });

  it('one that there is not, or that feeds nothing, has no answer', () => {
    for (const ask of [api.units, api.remedies, api.room, api.earth]) expect(ask('nobody')).toBeNull(); // prettier-ignore
    expect([api.places('nobody', null), api.feel('nobody', 'a'), api.sure('nobody', null, null, 1), api.split('nobody')]).toEqual([null, null, null, null]); // prettier-ignore
    expect(api.bands('nobody', 'dry', [])).toEqual({});
  });

  it('a fence made into two: what both then have', () => {
    const offer = sent(api.split('unit'))!;
    const after = applyPatch(p, offer.patch);
    expect(Object.keys(after.energisers).sort()).toEqual(['unit', offer.split.energiser].sort());
    for (const { energiser: id, score } of offer.scores) expect(score).toEqual(decidingSeason(networkOf(after, id))); // prettier-ignore
  });
});

describe('asked of the property', () => {
  it('ties, breaks and switches of every fence that is fed', () => {
    const aged = agedOf(net, 'dry');
    expect(sent(api.aged('dry'))).toEqual(CONNECTORS.map((kind) => {
      const of = aged.find((a) => a.kind === kind)!;
      return of.line !== null && of.left < 1 ? of : { kind, left: 1, line: null };
    })); // prettier-ignore
    expect(sent(api.stronger(0.2))).toEqual([strongerTies(net, 0.2)].flat());
    const at = { line: 'b', strand: 2, at_m: 300 };
    expect(sent(api.breakCost('dry', at))).toEqual(breakCost(net, 'dry', at));
    expect(api.breakCost('dry', { ...at, line: 'far' })).toBeNull();
    expect(sent(api.cutOuts(20))).toEqual([{ energiser: 'unit', found: cutOutsOf(net, 20) }]);
  });

  it('coils, work and what is inspected', () => {
    const { lines, counted, cat } = worked;
    expect(sent(api.cut([]))).toEqual(cutWires(p, { lines, supplies: supplyList(counted(), cat, p) }, cat, [])); // prettier-ignore
    const asked = { did: [], failed: [], today: '2026-05-04' };
    expect(sent(api.work(asked))).toEqual(plannedOf(madeOf(p, worked), asked));
    expect(sent(api.checks())).toEqual(checksOf(madeOf(p, worked)));
  });

  it('a line made up another way, a strand more, a design, other kinds, both ways round a corner', () => {
    const more = oneMore(p.lines['a']!.strands)!;
    expect(sent(api.oneMore('a'))).toEqual({ strand: more.strand, apart: apart(designed(p), designed(with_(p, 'a', { strands: more.strands }))) }); // prettier-ignore
    expect(sent(api.withDesign('a', 'two'))).toEqual(apart(designed(p), designed(with_(p, 'a', { strands: p.designs!['two']!.strands })))); // prettier-ignore
    const other = with_(p, 'b', { strands: rows().slice(1) });
    expect(sent(api.apart(null, other))).toEqual(apart(designed(p), designed(other)));
    expect(sent(api.kinds('a'))).toEqual({ rows: otherKinds(report.lines['a']!, own), own: ownKind(p.lines['a']!, p, report, own) }); // prettier-ignore
    expect(sent(api.bothWays('a'))).toEqual(bothWays('a', p, FLAT, createPipeline()));
    api.open({ ...p, designs: undefined } as unknown as Plan, null);
    expect(api.withDesign('a', 'two')).toBe(null);
    api.open(p, null);
    expect([api.oneMore('nobody'), api.withDesign('a', 'nobody'), api.withDesign('nobody', 'two'), api.kinds('nobody')]).toEqual([null, null, null, null]); // prettier-ignore
  });
});

describe('given another plan', () => {
  it('it answers by that one, on the ground that it has; on another ground all is worked out anew', () => {
    const shorter: Plan = { ...p, lines: { a: p.lines['a']! } };
    api.open(shorter, null);
    expect(sent(api.units('unit'))).toEqual(candidatesOf(networkOf(shorter)));
    api.open({ ...p, energisers: {} }, FLAT);
    expect([api.units('unit'), api.cutOuts(20), api.stronger(0.2)]).toEqual([null, [], []]);
  });

  it('what was worked out ahead of the one before is no answer to it', () => {
    expect([api.ahead('worked'), api.ahead('networks')]).toEqual([null, null]);
    const before = api.cut([]);
    const shorter: Plan = { ...p, lines: { a: p.lines['a']! } };
    api.open(shorter, null);
    api.ahead('worked');
    const { lines, counted, cat } = createPipeline()(shorter, FLAT, catalogue);
    expect(sent(api.cut([]))).toEqual(cutWires(shorter, { lines, supplies: supplyList(counted(), cat, shorter) }, cat, [])); // prettier-ignore
    expect(api.cut([])).not.toEqual(before);
    expect(sent(api.units('unit'))).toEqual(candidatesOf(networkOf(shorter)));
  });

  it('what a point should read follows it', () => {
    const points = [{ key: 'x', unit: 'unit', kind: 'volts', line: 'b', at_m: 400, at: { e: 1000, n: 400 } }] as unknown as Parameters<typeof api.bands>[2]; // prettier-ignore
    expect(sent(api.bands('unit', 'dry', points))).toEqual(bandsOf(net, 'dry', points));
    const weaker: Plan = { ...p, energisers: { unit: { ...p.energisers['unit']!, rods: 1 } } };
    api.open(weaker, null);
    expect(sent(api.bands('unit', 'dry', points))).toEqual(bandsOf(networkOf(weaker), 'dry', points)); // prettier-ignore
  });
});

describe('a hunt', () => {
  it('is the same for the same seed, goes on while nothing changes, and tells at the end what it hid', () => {
    expect(api.probe(null, null, 1)).toBeNull();
    expect(api.hide('unit', 'dry', 1 as never, 3, 1)).toBe(true);
    const first = api.probe(null, { line: 'b', at_m: 400 }, 1)!;
    const again = api.probe({ line: 'b', at_m: 400 }, { line: 'b', at_m: 400 }, 1)!;
    expect(again.minutes).toBeLessThan(first.minutes);
    expect(api.probe(null, { line: 'far', at_m: 10 }, 1)).toBeNull();
    expect(api.probe(null, null, 1)).toMatchObject({ amps: null, earth: expect.any(Number) });
    const { hidden } = api.reveal(1)!;
    expect(api.seen(hidden.at)).toBe(true);
    const hiding = (level: number, seed: number) => {
      expect(api.hide('unit', 'dry', level as never, seed, 1)).toBe(true);
      return api.reveal(1)!.hidden;
    };
    expect(hiding(1, 3)).toEqual(hidden);
    expect(hiding(1, 4)).not.toEqual(hidden);
    expect(hiding(2, 4).level).toBe(2);
    // Of another plan it is another fence, and the meter shows what that reads.
    hiding(1, 3);
    const volts = api.probe(null, null, 1)!.volts;
    api.open({ ...p, energisers: { unit: energiser('b', 900) } }, null);
    hiding(1, 3);
    expect(api.probe(null, null, 1)!.volts).not.toBe(volts);
    expect(api.hide('nobody', 'dry', 1 as never, 3, 1)).toBe(false);
    expect([api.probe(null, null, 1), api.reveal(1), api.seen(hidden.at)]).toEqual([null, null, false]); // prettier-ignore
  });
});

describe('asked through its door', () => {
  it('a stop is of the question that is named, and of no other', async () => {
    await worker.open(plan([]), FLAT);
    const [kept, left] = [worker.ask(1, 'checks', []), worker.ask(2, 'checks', [])];
    worker.stop(2);
    expect(await kept).toEqual([]);
    expect(await left).toBe(null);
  });
});
