/**
 * Makes the demo's season: 30 weeks of rounds on "Hollin Scar", all invented, with days counted back from the day on which
 * the demo is opened. What was read is a pulse of the fence as it "really" is (more leakage and a worse earth than the plan
 * reckons), with a meter's noise; a branch lay on it once and was taken off, a figure was misread once, and
 * since the last storm there is a leak that nobody has found yet.
 * Run: node scripts/ts.mjs scripts/make-season.ts
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { normal, uniform } from '../src/core/base/random.js';
import { evaluate } from '../src/core/evaluate.js';
import { ampsAt, METER_S, voltsAlong } from '../src/core/faults/property.js';
import { catalogue } from '../src/core/plan/shipped.js';
import { earthOf } from '../src/core/power/earthSide.js';
import { pulseNet, type Place } from '../src/core/power/pulseNet.js';
import { voltsOf } from '../src/core/power/volts.js';
import { seasonOf, type Growth, type Weather } from '../src/core/rounds/logged.js';
import { earthShare, testPoints } from '../src/core/rounds/points.js';
import { groundOf } from '../src/core/terrain/ground.js';
import { parsePlan } from '../src/formats/planFile.js';
import { networkOf } from '../tests/unit/scene.js';

const { plan, grids } = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(plan, grids);
const report = evaluate(plan, ground, catalogue, { mends: 0 });
const [random, bell] = [uniform(1911), normal(77)];

/** How the property really is, as factors on what its plan reckons with. */
const TRUE = { growth: 1.35, earth: 1.4, wire: 1.04 };
/** Days before the demo's day. */
const BRANCH = { from: 134, to: 129, at: { line: 'top-e', at_m: 310 }, r_ohm: 260 };
const LEAK = { from: 9, at: { line: 'mid-e', at_m: 415 }, r_ohm: 330 };
const CUTS = [172, 128, 84, 40];

interface Entry {
  readonly kind: string;
  /** Days before the day on which the demo is opened. */
  readonly before: number;
  readonly clock: string;
  readonly fields: Record<string, unknown>;
}
const entries: Entry[] = [];
const put = (kind: string, before: number, clock: string, fields: Record<string, unknown>) =>
  entries.push({ kind, before, clock, fields });
const event = (
  before: number,
  clock: string,
  what: string,
  note: string,
  line: string | null = null,
) =>
  put('events', before, clock, {
    what,
    line,
    at_m: null,
    spot: null,
    photo: null,
    note,
    who: 'Demo',
  });

const nets = Object.fromEntries(
  Object.keys(plan.energisers).map((id) => [id, networkOf(plan, id, ground)]),
);
const LINES = [
  'burn',
  'east',
  'ridge',
  'west',
  'mid-w',
  'mid-e',
  'top-w',
  'top-e',
  'lane-w',
  'hay',
  'terrace',
  'pony',
];
const points = testPoints(plan, report, [], (id) => id === 'far-hut').filter(
  (p) => p.line === null || LINES.includes(p.line),
);
const clockOf = (k: number) =>
  `${String(8 + Math.floor((k * 7) / 60)).padStart(2, '0')}:${String((k * 7) % 60).padStart(2, '0')}`;

function growthOn(before: number): Growth {
  const since = Math.min(
    ...CUTS.filter((c) => c >= before).map((c) => c - before),
    before > 195 ? 0 : 400,
  );
  return since < 14 ? 'cut' : since < 38 ? 'some' : 'long';
}

for (let before = 204; before >= 1; before -= 7) {
  const x = random();
  const weather: Weather = before === 1 ? 'damp' : x < 0.25 ? 'dry' : x < 0.65 ? 'damp' : 'wet';
  const growth = before === 1 ? 'some' : growthOn(before);
  const season = seasonOf({ weather, growth });
  const loads = [
    ...(before <= BRANCH.from && before > BRANCH.to ? [{ ...BRANCH.at, r_ohm: BRANCH.r_ohm }] : []),
    ...(before <= LEAK.from ? [{ ...LEAK.at, r_ohm: LEAK.r_ohm }] : []),
  ];
  // The last round went on with a clamp where volts were low.
  const clamped: Place[] =
    before === 1
      ? [
          { line: 'lane-e', at_m: 230 },
          { line: 'mid-e', at_m: 60 },
          { line: 'east', at_m: 320 },
        ]
      : [];
  let k = 0;
  for (const [id, net] of Object.entries(nets)) {
    const options = {
      growth: TRUE.growth,
      earth_ohm: earthOf(net, season) * TRUE.earth,
      scale: { l: 1, r: TRUE.wire },
      loads: loads.filter((l) => net.ids.includes(l.line)),
      amps_s: METER_S,
    };
    const volts = voltsOf(net, season, options)!;
    const pulse = pulseNet(net, season, options)!;
    const share = earthShare(report.energisers[id]!.earth.test);
    const day = { weather, growth, who: 'Demo' };
    const noisy = (v: number, rel: number) => v * (1 + rel * bell());
    for (const p of points.filter((q) => q.unit === id)) {
      const own = {
        line: p.line,
        at_m: p.at_m,
        spot: p.spot,
        unit: p.line === null ? id : null,
        towards: null,
        note: '',
        ...day,
      };
      const at = clockOf(k++);
      if (p.kind === 'earth_volts')
        put('readings', before, at, {
          kind: p.kind,
          value: Math.round(noisy(share * volts.out_A * volts.earth_ohm, 0.08) / 10) * 10,
          ...own,
        });
      else if (p.kind === 'battery_volts') {
        if (before % 14 === 1)
          put('readings', before, at, {
            kind: p.kind,
            value: Math.round(10 * (before < 40 ? 12.1 : 12.7)) / 10,
            ...own,
          });
      } else {
        const real =
          p.line === null ? volts.out_V : (voltsAlong(volts, { line: p.line, at_m: p.at_m! }) ?? 0);
        // A figure that was misread: 100 too few hundreds.
        const value = before === 64 && p.line === 'west' ? real * 0.45 : noisy(real, 0.025);
        put('readings', before, at, {
          kind: 'volts',
          value: Math.round(value / 100) * 100,
          ...own,
        });
      }
    }
    for (const { line, at_m } of clamped) {
      const j = pulse.pieces.findIndex(
        (piece) => piece?.line === line && piece.from_m <= at_m && at_m <= piece.to_m,
      );
      if (j < 0) continue;
      const piece = pulse.pieces[j]!;
      const all = ampsAt(volts.amps![j]!, (at_m - piece.from_m) / (piece.to_m - piece.from_m));
      const strands = plan.lines[line]!.strands.filter((s) => s.duty === 'live').length;
      const own = { line, at_m, spot: null, unit: null, note: '', ...day };
      put('readings', before, clockOf(k++), {
        kind: 'volts',
        value: Math.round((voltsAlong(volts, { line, at_m }) ?? 0) / 100) * 100,
        towards: null,
        ...own,
      });
      put('readings', before, clockOf(k++), {
        kind: 'amps',
        value: Math.round(10 * Math.abs(noisy(all / strands, 0.05))) / 10,
        towards: all > 0 ? 'end' : 'start',
        ...own,
      });
    }
  }
}

event(200, '10:00', 'insulators', 'all looked over, two changed on Burn side');
event(195, '09:30', 'trained', 'heifers and ewes, in the yard');
for (const c of CUTS) event(c, '13:00', 'cut', 'strip under the lowest strand');
event(112, '08:30', 'rods', 'driest weeks');
event(BRANCH.from, '21:00', 'storm', 'wind from the west');
event(60, '11:00', 'stock_in', 'ewes on Hay split');
event(LEAK.from, '19:00', 'storm', 'heavy rain and wind');
put('repairs', BRANCH.to, '11:20', {
  ...BRANCH.at,
  spot: null,
  what: 'branch',
  strand: 2,
  joint: null,
  parts: JSON.stringify({}),
  hours: 0.75,
  cost: 18.75,
  photo: null,
  note: 'ash branch lay on the lower strands',
  who: 'Demo',
});
put('repairs', 90, '15:10', {
  line: 'burn',
  at_m: 402,
  spot: null,
  what: 'strand',
  strand: 3,
  joint: 'wedge',
  parts: JSON.stringify({ 'joiner.wedge': 1 }),
  hours: 0.5,
  cost: 15.1,
  photo: null,
  note: 'heifer through it',
  who: 'Demo',
});

entries.sort((a, b) => b.before - a.before || a.clock.localeCompare(b.clock));
writeFileSync(
  'demo/hollin-scar.log.json',
  `${JSON.stringify({ invented: true, about: 'A season of log entries, made up; days are counted back from the day on which the demo is opened.', entries }, null, 1)}\n`,
);
console.log(entries.length, 'entries');
