/**
 * A property's electrical network as a deck for a general circuit simulator: it runs as it is in batch mode and
 * prints every node. Comments lead from each node to its place and strand.
 */
import { assemble } from '../core/power/assembly.js';
import { circuitOf } from '../core/power/circuit.js';
import { earthOf } from '../core/power/earthSide.js';
import { loadLineOf } from '../core/power/unit.js';
import { solveUnit } from '../core/power/network.js';
import { pulseNet } from '../core/power/pulseNet.js';
import { plateOfUnit, unitOf } from '../core/power/unit.js';
import { cellOf } from '../core/power/volts.js';
import type { Network } from '../core/power/wired.js';
import type { SeasonId } from '../core/plan/catalogue.js';
import { cellsOf } from '../core/pulse/cells.js';
import { FormatError } from './error.js';

/** Names by line, for people. */
type Names = Readonly<Record<string, string>>;

const ohm = (g: number): string => (1 / g).toPrecision(10);
const value = (x: number): string => x.toPrecision(10);

/** What a place of the network is called: "terrace:172.00" is 172 m along the line "terrace". */
function placeWords(location: string, names: Names): string {
  const [line, at] = location.split(/[:@]/) as [string, string | undefined];
  return at === undefined ? location : `${names[line] ?? line} at ${Number.parseFloat(at)} m`;
}

/**
 * The resistive network strand by strand, driven with the current that the load line gives, for an operating point.
 * @throws FormatError when the energiser feeds nothing
 */
export function resistiveDeck(net: Network, season: SeasonId, names: Names): string {
  const circuit = circuitOf(net, season);
  if (circuit.energiser.hot_strands.length === 0)
    throw new FormatError(net.energiser.id, 'feeds no live strand');
  const unit = solveUnit(circuit);
  if (unit.r_in_ohm === Infinity)
    throw new FormatError(net.energiser.id, 'no current comes back: nothing leaks in this season');
  const a = assemble(circuit);
  const volts = loadLineOf(plateOfUnit(net.energiser, net.cat))(unit.r_in_ohm);
  const node = (k: number): string => (k < 0 ? '0' : `n${k}`);
  const out: string[] = [];
  let n = 0;
  const resistor = (p: number, q: number, g: number) =>
    out.push(`R${++n} ${node(p)} ${node(q)} ${ohm(g)}`);
  for (const p of a.pieces) {
    // What hangs on nothing would leave the matrix singular; it is dead.
    if (a.row[p.a]! < 0) continue;
    resistor(p.a, p.b, p.series);
    if (p.shunt > 0) {
      resistor(p.a, -1, p.shunt);
      resistor(p.b, -1, p.shunt);
    }
  }
  for (const [p, q, g] of a.links) if (a.row[p]! >= 0) resistor(p, q, g);
  const table = a.nodes.list.flatMap(
    ({ location, strand }, k) =>
    a.row[k]! < 0 ? [] : [`* n${k}: ${placeWords(location, names)}, ${strandWords(strand, net, names)}`], // prettier-ignore
  );
  return deck(
    `${names[net.energiser.id] ?? net.energiser.id}, season ${season}: resistive network, strand by strand`,
    [...table, `* n${a.hot}: hot terminal`, `* n${a.earth}: earth terminal`, '* 0: far soil'],
    [...out, `Iunit n${a.earth} n${a.hot} DC ${value(volts / unit.r_in_ohm)}`],
    ['op', 'print all'],
  );
}

function strandWords(strand: string, { wired }: Network, names: Names): string {
  const [line, k] = strand.split('/') as [string, string | undefined];
  const s = k === undefined ? undefined : wired[line]?.line.strands[Number(k)];
  return s
    ? `${names[line] ?? line}, ${s.duty} strand ${Number(k) + 1} at ${Math.round(s.height_m * 1000)} mm`
    : `cable ${strand}`;
}

/** How long the deck looks at the pulse, s, and its step. */
const LOOK = 1e-4;
const STEP = 1.5e-8;

/**
 * The pulse's network: the unit's circuit behind an ideal diode, tied strands in cells, and the peak of every node.
 * @throws FormatError when the energiser feeds nothing
 */
export function transientDeck(net: Network, season: SeasonId, names: Names): string {
  const pulse = pulseNet(net, season);
  if (!pulse) throw new FormatError(net.energiser.id, 'feeds no live strand');
  const { source } = unitOf(net.energiser, net.cat);
  const cut = cellsOf(pulse.at, pulse.lines, [], cellOf(pulse.length_m));
  const C = new Float64Array(cut.count);
  const G = new Float64Array(cut.count);
  C.set(cut.C);
  G.set(cut.G);
  const out: string[] = [];
  let n = 0;
  for (const s of cut.stretches) {
    const at = (k: number) => (k === 0 ? s.a : k === s.cells ? s.b : s.inner + k - 1);
    for (let k = 0; k < s.cells; k++) {
      out.push(`R${++n} n${at(k)} m${n} ${value(s.R)}`, `L${n} m${n} n${at(k + 1)} ${value(s.L)}`);
      if (k > 0) {
        C[at(k)] = s.C;
        G[at(k)] = s.G;
      }
    }
  }
  C.forEach((c, k) => c > 0 && out.push(`C${k} n${k} 0 ${value(c)} IC=0`));
  G.forEach((g, k) => g > 0 && out.push(`Rg${k} n${k} 0 ${ohm(g)}`));
  const root = cut.nodes.get(pulse.at)!;
  const unit = [
    `Cunit cap rods ${value(source.c_eq_f)} IC=${value(source.n_v0_v)}`,
    `Rearth rods 0 ${value(Math.max(1e-6, earthOf(net, season)))}`,
    'Dunit cap anode open',
    '.model open D(IS=1e-9 N=0.01 RS=1e-3)',
    `Runit anode coil ${value(Math.max(1e-3, source.r_s_ohm))}`,
    `Lunit coil n${root} ${value(source.l_s_h)} IC=0`,
    ...(source.r_d_ohm ? [`Rdamp coil n${root} ${value(source.r_d_ohm)}`] : []),
  ];
  const named = new Map<number, string>();
  for (const [name, k] of cut.nodes) if (!named.has(k)) named.set(k, placeWords(name, names));
  cut.along.forEach((nodes, i) => {
    const piece = pulse.pieces[i];
    if (!piece) return;
    nodes.forEach((k, j) => {
      const s = piece.from_m + ((piece.to_m - piece.from_m) * j) / (nodes.length - 1);
      if (!named.has(k)) named.set(k, `${names[piece.line] ?? piece.line} at ${s.toFixed(1)} m`);
    });
  });
  return deck(
    `${names[net.energiser.id] ?? net.energiser.id}, season ${season}: one pulse on tied strands`,
    [...named].map(([k, words]) => `* n${k}: ${words}, live strands tied`),
    [...unit, ...out],
    [
      `tran ${STEP} ${LOOK} 0 ${STEP} uic`,
      ...Array.from({ length: cut.count }, (_, k) => `meas tran peak_n${k} max v(n${k})`),
    ],
  );
}

const deck = (
  title: string,
  table: readonly string[],
  parts: readonly string[],
  run: readonly string[],
) =>
  [
    title,
    '* Invented or planned figures; nothing here was measured.',
    '* Which node is where:',
    ...table,
    ...parts,
    '.control',
    ...run,
    'quit',
    '.endc',
    '.end',
    '',
  ].join('\n');
