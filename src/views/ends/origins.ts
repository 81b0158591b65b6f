/** Where the figures of the step Ends come from. */
import type { Origin } from '../../ui/parts/Num.js';

export const PULL: Origin = {
  kind: 'formula',
  title: 'Pull on the end',
  formula: 'sum of the strands’ tensions on the coldest night, at the shortest bay',
  source: 'State change of a wire held at both ends; short bays pull hardest',
  inputs: [
    { name: 'Steel, stiffness', path: 'defaults.wire.modulus.value' },
    { name: 'Steel, expansion', path: 'defaults.wire.expansion.value' },
  ],
};

export const FORCES: Origin = {
  kind: 'formula',
  title: 'Forces in the assembly',
  formula:
    'moments about the feet of hinged posts; and a plane frame of posts that bend in springy ground; the greater decides',
  source:
    'Statics and stiffness method; both agree with independent solutions to 1e-6. Springs of the soil from memory',
  inputs: [
    { name: 'Foot of the brace wire', path: 'defaults.ends.wireFoot.value' },
    { name: 'Legs of the brace wire', path: 'defaults.ends.legs.value' },
    { name: 'Springs up and down, kN/mm', path: 'defaults.ends.vertical.value' },
  ],
};

export const USED: Origin = {
  kind: 'formula',
  title: 'Share that is used',
  formula:
    'greatest of asked x safety / given over: lift, foot, second foot, brace wire, rail, bending, buried log',
  source:
    'Shaft friction for lifting, Broms 1964 [from memory] for feet, Euler for rails; soil figures are memory and judgement',
  inputs: [
    { name: 'Safety against lifting', path: 'defaults.posts.upliftSafety.value' },
    { name: 'Safety of feet', path: 'defaults.ends.footSafety.value' },
    { name: 'Safety of a post alone', path: 'defaults.ends.aloneSafety.value' },
    { name: 'Brace wire, share of its break', path: 'defaults.ends.legShare.value' },
    { name: 'Safety against buckling', path: 'defaults.ends.railSafety.value' },
  ],
};

export const CODE_DEPTH: Origin = {
  kind: 'formula',
  title: 'Depth by the building code',
  formula: 'd = (A/2)(1 + sqrt(1 + 4.36 h/A)), A = 2.34 P/(S1 b), S1 at a third of the depth',
  source:
    'International Building Code 1807.3.2.1, from memory: for a post that nothing braces and that must not move over years. Practice sets braced ends far less deep; what decides here is the ground’s resistance with a safety',
  inputs: [{ name: 'Bearing, times the table', path: 'defaults.ends.codeMoves.value' }],
};

export const COST: Origin = {
  kind: 'formula',
  title: 'Cost of the end',
  formula:
    'end post + further posts + rail, pins, wire, staples + what the holes take, by the price book',
  source: 'Price book; the prices shipped are invented',
};

export const HOURS: Origin = {
  kind: 'formula',
  title: 'Hours for the end',
  formula: 'hours of the kind + hours of setting a post x posts',
  source: 'From memory: put in your own',
};

export const WAIT: Origin = {
  kind: 'default',
  title: 'Wait before it is loaded',
  source: 'By the way the posts are set; concrete by its mix, from memory',
};

export const LITRES: Origin = {
  kind: 'formula',
  title: 'What the hole takes',
  formula: 'pi/4 x (hole² - post²) x depth that is filled',
  source: 'Room round the post by the way of setting, from memory',
  inputs: [
    { name: 'One bag, litres', path: 'defaults.ends.bag.value' },
    { name: 'Gravel, t/m3', path: 'defaults.ends.gravelDensity.value' },
  ],
};

export const HINGE: Origin = {
  kind: 'formula',
  title: 'Loads of the gate',
  formula:
    'weight x half the width + somebody on the tip x width; hinge: that / distance of the pins',
  source: 'Statics; weights from memory',
  inputs: [
    { name: 'Gate, kg per metre', path: 'defaults.gate.massPerMetre.value' },
    { name: 'On the tip, kg', path: 'defaults.gate.tipLoad.value' },
    { name: 'Between the pins, m', path: 'defaults.gate.hingeSpacing.value' },
  ],
};

export const HOLDS: Origin = {
  kind: 'default',
  title: 'Holds against being pulled out',
  source: 'Share of what a driven post holds by friction, from memory and judgement',
};

export const TWIST: Origin = {
  kind: 'formula',
  title: 'What a leg is twisted or ratcheted to',
  formula: 'share x pull of the leg on the coldest night',
  source: 'Assumed: firm, so that the end hardly moves; never until the wire shows weakness',
  inputs: [{ name: 'Share of the pull', path: 'defaults.ends.twist.value' }],
};
