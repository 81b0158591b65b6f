/**
 * npm run hunts:pulse: seeded faults in the demo property, hunted by the search that the screens use. What the meter
 * reads is a pulse with the fault in it, simulated as a whole: nothing of the search is used to make it.
 */
import { readFileSync } from 'node:fs';
import { normal, uniform } from '../src/core/base/random.js';
import type { Meter } from '../src/core/faults/fence.js';
import { foundBy, metersAt, nextFrom, placesOf } from '../src/core/faults/hunt.js';
import { ON_A_SEARCH, weigher } from '../src/core/faults/kinds.js';
import { likely, spread, type FaultReading } from '../src/core/faults/posterior.js';
import { ampsAt, searchedOf, voltsAlong } from '../src/core/faults/property.js';
import { placeOf } from '../src/core/faults/searched.js';
import { metresFrom, type OnSection } from '../src/core/faults/walk.js';
import { pulseNet } from '../src/core/power/pulseNet.js';
import { voltsOf } from '../src/core/power/volts.js';
import { groundOf } from '../src/core/terrain/ground.js';
import { parsePlan } from '../src/formats/planFile.js';
import { networkOf } from '../tests/unit/scene.js';

const HUNTS = Number(process.env['HUNTS'] ?? 60);
const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const net = networkOf(demo.plan, 'steading', groundOf(demo.plan, demo.grids));
const middle = (x: number[]) => x.toSorted((a, b) => a - b)[x.length >> 1]!;
const METER = { voltage_rel: 0.03, voltage_floor_v: 60, current_rel: 0.05, current_floor_a: 0.15 };

/** A place that was read is not read again. */
const spotOf = (p: OnSection): string => `${p.section} ${p.x_m.toFixed(0)}`;

for (const season of ['today', 'wet'] as const)
  for (const off of [false, true]) {
    const t0 = performance.now();
    const fence = searchedOf(net, season)!;
    const built = performance.now() - t0;
    const { fences, sections, noise } = fence;
    const { cells } = fences[0]!;
    const places = placesOf(fences[0]!, sections).filter((p) => fence.pieces[p.section]);
    const prior = { p_leak: 0.7, p_joint: 0.1, p_broken: 0.2 };
    const asked = {
      noise,
      prior,
      places,
      near_m: 100,
      pace: { metres_per_minute: 67, reading_min: 5 },
    };
    const [random, bell] = [uniform(5), normal(82)];
    const either = (k: number) => (off ? (random() < 0.5 ? k : 1 / k) : 1);
    const onLines = cells.map((c, k) => ({ c, k })).filter(({ c }) => fence.pieces[c.section]);
    const [touches, walks]: number[][] = [[], []];
    let [hits, held, leaks, leakHits] = [0, 0, 0, 0];
    const weigh = weigher(fence);
    const told: Record<string, number> = {};
    for (let h = 0; h < HUNTS; h++) {
      const { c } = onLines[Math.floor(random() * onLines.length)]!;
      const place = { section: c.section, x_m: c.x_m + (random() - 0.5) * c.length_m };
      const at = placeOf(fence, place)!;
      const broken = random() < 0.2;
      const r_ohm = 50 * 60 ** random();
      const options = { growth: either(1.3), scale: { l: 1, r: either(1.1) }, ...(broken ? { breaks: [at] } : { loads: [{ ...at, r_ohm }] }) }; // prettier-ignore
      const volts = voltsOf(net, season, { ...options, amps_s: 5e-5 })!;
      const truth = pulseNet(net, season, options)!;
      const readAt = (m: Meter, spot: OnSection): number => {
        const { line, at_m } = placeOf(fence, spot)!;
        if (m.quantity !== 'current') return voltsAlong(volts, { line, at_m }) ?? 0;
        // Just inside its section, where others meet.
        const own = fence.pieces[spot.section]!;
        const s = Math.min(own.to_m - 0.01, Math.max(own.from_m + 0.01, at_m));
        const k = truth.pieces.findIndex((p) => p?.line === line && p.from_m <= s && s <= p.to_m);
        return k < 0 || volts.amps![k]!.length === 0 ? 0 : ampsAt(volts.amps![k]!, (s - truth.pieces[k]!.from_m) / (truth.pieces[k]!.to_m - truth.pieces[k]!.from_m)); // prettier-ignore
      };
      const readings: FaultReading[] = [];
      let here: OnSection = places[0]!;
      const read = new Set<string>();
      let walk = 0;
      for (let touch = 1; ; touch++) {
        for (const m of metersAt(here, sections)) {
          const mu = readAt(m, here);
          readings.push({ meter: m, value: mu + spread(m, mu, METER) * bell() });
        }
        const found = foundBy(fences, sections, readings, asked);
        const done = found.near >= 0.9 || touch === 20;
        if (touch === 3)
          if (likely(cells, found.posterior.cells, 0.8).some((s) => s.section === place.section && s.from_m <= place.x_m && place.x_m <= s.to_m)) held++; // prettier-ignore
        if (done) {
          const d = metresFrom(sections, cells[found.best]!)(place);
          if (!broken) leaks++;
          if (d <= 100) {
            hits++;
            if (!broken) leakHits++;
          } else if (process.env['SAY']) console.log(`  missed: ${broken ? 'break' : `${r_ohm.toFixed(0)} ohm`} on ${at.line} ${at.at_m.toFixed(0)}, off ${d.toFixed(0)} m after ${touch}`); // prettier-ignore
          touches!.push(touch);
          walks!.push(walk);
          const { likeliest } = weigh(readings, ON_A_SEARCH);
          told[`${broken ? 'break' : 'leak'}>${likeliest}`] = (told[`${broken ? 'break' : 'leak'}>${likeliest}`] ?? 0) + 1; // prettier-ignore
          break;
        }
        const [next] = nextFrom(fences, sections, found.posterior, here, { ...asked, places: places.filter((p) => !read.has(spotOf(p))) }); // prettier-ignore
        read.add(spotOf(here));
        walk += next!.stop.metres;
        here = next!.stop.at;
      }
    }
    const share = (n: number, of = HUNTS) => `${((100 * n) / of).toFixed(0)} %`;
    console.log(`${season}${off ? ', off' : ''}: made ready in ${built.toFixed(0)} ms, rate ${fence.fit.rate.toFixed(0)} /s, gain ${fence.fit.gain.toFixed(2)}, off ${(100 * fence.fit.off).toFixed(1)} % V, ${(100 * fence.fit.amps_off).toFixed(0)} % A; within 100 m ${share(hits)} (leaks ${share(leakHits, leaks)}); touches ${middle(touches!)} (most ${Math.max(...touches!)}); walk ${(middle(walks!) / 1000).toFixed(2)} km; 80 % held ${share(held)}`, told); // prettier-ignore
  }
