/**
 * npm run hunts: seeded faults on a farm of 6 km and 12 sections, hunted with a meter that is off by 3 % in volts and 5 %
 * in amps. A touch of the wire reads both. Printed: how often the fault was within 100 m, touches, the walk, how often the
 * stretch called 80 % held it after three touches. With "off" the leakage is off by 30 % and the resistance by 10 %, each
 * up or down by lot, and nobody knows.
 */
import { readFileSync } from 'node:fs';
import { normal, uniform } from '../src/core/base/random.js';
import { faultFence, geometric, timesOf } from '../src/core/faults/fence.js';
import { fencesAsTheyMayBe, foundBy, metersAt, nextFrom } from '../src/core/faults/hunt.js';
import { likely, spread, type FaultReading } from '../src/core/faults/posterior.js';
import { metresFrom } from '../src/core/faults/walk.js';
import type { FenceResistiveInputs } from '../src/core/power/network.js';

const HUNTS = Number(process.env['HUNTS'] ?? 60);
const { network } = (JSON.parse(readFileSync('tests/reference/cases/fault_location.json', 'utf8')) as { cases: { inputs: { network: FenceResistiveInputs } }[] }).cases[0]!.inputs; // prettier-ignore
const { sections } = network;
const plate = network.energiser.load_line;
const meter = { voltage_rel: 0.03, voltage_floor_v: 60, current_rel: 0.05, current_floor_a: 0.15 };
// Cells and resistances are steps: what lies between is allowed for.
const noise = {
  ...meter,
  voltage_rel: Math.hypot(0.03, 0.02),
  current_rel: Math.hypot(0.05, 0.02),
};
const asked = { noise, prior: { p_leak: 0.8, p_broken: 0.2 }, near_m: 100, pace: { metres_per_minute: 67, reading_min: 5 } }; // prettier-ignore
const fences = fencesAsTheyMayBe(network, plate, { cell_m: 50, leaks_ohm: geometric(50, 5000, 41), strand: 's1' }); // prettier-ignore
const [{ cells }] = fences as [(typeof fences)[number]];
const middle = (x: number[]) => x.toSorted((a, b) => a - b)[x.length >> 1]!;

function hunts(seed: number, off: boolean) {
  const [random, bell] = [uniform(seed), normal(seed + 77)];
  const either = (k: number) => (off ? (random() < 0.5 ? k : 1 / k) : 1);
  const [touches, walks]: number[][] = [[], []];
  let [hits, held] = [0, 0];
  for (let h = 0; h < HUNTS; h++) {
    const [g, r] = [either(1.3), either(1.1)];
    const truth = faultFence(
      {
        ...timesOf(network, g, r),
        probes: cells.map((c) => ({ ...c, strand: 's1' })),
      },
      plate,
      { cell_m: 10, leaks_ohm: [50 * 100 ** random()], strand: 's1' },
    );
    const k = Math.floor(random() * truth.cells.length);
    const place = truth.cells[k]!;
    const fault = Uint32Array.of(random() < 0.2 ? truth.cells.length + k : k);
    const readings: FaultReading[] = [];
    let here = { section: sections[0]!.id, x_m: 0 };
    let walk = 0;
    for (let touch = 1; ; touch++) {
      for (const m of metersAt(here, sections)) {
        const mu = truth.read(m, fault)[0]!;
        readings.push({ meter: m, value: mu + spread(m, mu, meter) * bell() });
      }
      const found = foundBy(fences, sections, readings, asked);
      const done = found.near >= 0.9 || touch === 20;
      if (touch === 3 || (done && touch < 3))
        if (likely(cells, found.posterior.cells, 0.8).some((s) => s.section === place.section && s.from_m <= place.x_m && place.x_m <= s.to_m)) held++; // prettier-ignore
      if (done) {
        if (metresFrom(sections, cells[found.best]!)(place) <= 100) hits++;
        touches!.push(touch);
        walks!.push(walk);
        break;
      }
      const [next] = nextFrom(fences, sections, found.posterior, here, asked);
      walk += next!.stop.metres;
      here = next!.stop.at;
    }
  }
  const share = (n: number) => `${((100 * n) / HUNTS).toFixed(0)} %`;
  console.log(`seed ${seed}${off ? ', off' : ''}: within 100 m ${share(hits)}; touches ${middle(touches!)} (most ${Math.max(...touches!)}); walk ${(middle(walks!) / 1000).toFixed(2)} km; 80 % held it in ${share(held)}`); // prettier-ignore
}

for (const seed of [1, 2, 3]) for (const off of [false, true]) hunts(seed, off);
