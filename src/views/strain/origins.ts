/** Where the figures of Strain come from. */
import type { Origin } from '../../ui/parts/Num.js';

const STEEL = [
  { name: 'Thermal expansion', path: 'defaults.wire.expansion.value' },
  { name: 'Modulus of steel', path: 'defaults.wire.modulus.value' },
  { name: 'Density of steel', path: 'defaults.wire.density.value' },
];
const FRICTION = [
  { name: 'Friction at a line post', path: 'defaults.wire.friction.value' },
  { name: 'Friction at a bend', path: 'defaults.wire.frictionBend.value' },
];

export const STATE: Origin = {
  kind: 'formula',
  title: 'Wire between fixed ends',
  formula: 'T/EA + T/(k Lw) − w²L²/(24 T²) + αθ = const, L the ruling span',
  source: 'State-change equation of overhead-line practice; docs/model.md, Wire',
  inputs: STEEL,
};
export const SLIDES: Origin = {
  kind: 'formula',
  title: 'Wire along its run',
  formula:
    "beyond each post T' = T e^(−μθ) − drag; drag = μ w × bay; sliding only while T(hi) e^(−μθ) − drag > T(lo)",
  source:
    'Capstan friction in three dimensions, each bay by the state-change equation; docs/model.md, Wire',
  inputs: [...FRICTION, ...STEEL],
};
export const LIMIT: Origin = {
  kind: 'formula',
  title: 'Most tension on the coldest night',
  formula: 'share × break load × efficiency of the weakest joint',
  source: 'Common practice',
  inputs: [
    { name: 'Share of the break load', path: 'defaults.wire.coldLimit.value' },
    { name: 'Wrapped knot', path: 'joints.knot.efficiency' },
    { name: 'Wedge joiner', path: 'joints.wedge.efficiency' },
    { name: 'Three sleeves', path: 'joints.sleeves3.efficiency' },
    { name: 'Four sleeves', path: 'joints.sleeves4.efficiency' },
  ],
};
export const SAG: Origin = {
  kind: 'formula',
  title: 'Sag at mid-bay, straight below the chord',
  formula: 's = w L² / (8 T)',
  source: 'Parabola; the exact catenary differs by parts in a million here',
  inputs: [{ name: 'Most sag', path: 'defaults.wire.sagLimit.value', quantity: 'sag' }],
};
export const WINDOW: Origin = {
  kind: 'formula',
  title: 'Settings that hold',
  formula:
    'least: sag and push in limits on the hottest day; most: share × joint on the coldest night',
  source: 'Each setting tried along the whole run, with its friction; docs/model.md, Wire',
  inputs: [
    { name: 'Most sag', path: 'defaults.wire.sagLimit.value', quantity: 'sag' },
    { name: 'Push of an animal', path: 'defaults.wire.pushForce.value', quantity: 'force' },
    { name: 'Share of the break load', path: 'defaults.wire.coldLimit.value' },
    { name: 'Never more than this share', path: 'defaults.wire.coldMost.value' },
  ],
};
export const TAKE_UP: Origin = {
  kind: 'formula',
  title: 'Wire wound in, and turns of the spool',
  formula:
    'Σ (T − Ti) c/EA + Σ c w²L²/24 (1/Ti² − 1/T²) + slip of both ties; turns = wound/(π (D + d)), layer on layer',
  source: 'From a wire that was drawn out by hand; docs/model.md, Wire',
  inputs: [
    { name: 'Pull of the hand', path: 'defaults.wire.hand.value', quantity: 'force' },
    { name: 'Spool', path: 'defaults.wire.spool.value', quantity: 'diameter' },
    { name: 'Turns in a layer', path: 'defaults.wire.perLayer.value' },
  ],
};
export const SPRING: Origin = {
  kind: 'formula',
  title: 'Length of the spring between its loops',
  formula: 'free length + T/k, no longer than its travel',
  source: 'From memory: measure your own',
  inputs: [
    { name: 'Stiffness', path: 'defaults.spring.rate.value', quantity: 'stiffness' },
    { name: 'Travel', path: 'defaults.spring.travel.value', quantity: 'height' },
    { name: 'Free length', path: 'defaults.spring.free.value', quantity: 'height' },
  ],
};
export const WAVE: Origin = {
  kind: 'formula',
  title: 'Time of the returns of a pulse',
  formula: 't = 2 n L √(m/T)',
  source: 'Wave on a string; general mechanics',
  inputs: [],
};
export const PULL: Origin = {
  kind: 'formula',
  title: 'Pull at mid-bay for a movement sideways',
  formula: "F = 4 d/L' (T + K (L' − L)), K of the wire that gives with it",
  source: 'Plain statics, with stretch; docs/model.md, Wire',
  inputs: [],
};
export const SLIP: Origin = {
  kind: 'formula',
  title: 'What the knots leave',
  formula: 'T − EA × slip / length, both ties, no tensioner in the wire',
  source: 'Slip of a knot 5 to 15 mm, from memory',
  inputs: [
    { name: 'Slip of a wrapped knot', path: 'joints.knot.slip_m', quantity: 'height' },
    { name: 'Slip of a wedge joiner', path: 'joints.wedge.slip_m', quantity: 'height' },
  ],
};
export const WORK: Origin = {
  kind: 'formula',
  title: 'Hours of ends, ties and tensioners',
  formula: 'hours of each end and its posts + ties × minutes + strands × minutes',
  source: 'From memory; days done put their own figures in its place later',
  inputs: [
    { name: 'To tie an end', path: 'defaults.wire.tieMinutes.value', quantity: 'minutes' },
    {
      name: 'To tension a strand',
      path: 'defaults.wire.tensionMinutes.value',
      quantity: 'minutes',
    },
  ],
};
