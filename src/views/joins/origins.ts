/** Where the figures of the step Joins come from. */
import type { Origin } from '../../ui/parts/Num.js';

export const FED_M: Origin = {
  kind: 'formula',
  title: 'Live strand that is fed',
  formula:
    'length of all live strand that the graph of strands, ties and cables reaches from the unit',
  source: 'One walk from the hot terminal; equal to where the network has volts (tests)',
};

export const AGED: Origin = {
  kind: 'formula',
  title: 'Far end when the ties have aged',
  formula:
    'volts with every tie at its aged resistance / volts with sound ties, at the place that loses most',
  source:
    'Resistive network of the lines that hang together, in the season shown, at the same volts at the unit',
  inputs: [
    { name: 'Sound tie', path: 'defaults.network.jumper.value' },
    { name: 'Tied by hand, aged, ohm', path: 'connectors.hand.aged_ohm' },
    { name: 'Clamp, aged, ohm', path: 'connectors.clamp.aged_ohm' },
    { name: 'Tap, aged, ohm', path: 'connectors.tap.aged_ohm' },
  ],
};

export const COST: Origin = {
  kind: 'formula',
  title: 'Cost of the ties',
  formula: 'connectors x price + wire x price by the metre',
  source: 'Price book; the prices shipped are invented',
};

export const HOURS: Origin = {
  kind: 'formula',
  title: 'Time for the ties',
  formula: 'connectors x minutes each',
  source: 'From memory: put in your own',
  inputs: [
    { name: 'Tied by hand, min', path: 'connectors.hand.minutes' },
    { name: 'Clamp, min', path: 'connectors.clamp.minutes' },
    { name: 'Tap, min', path: 'connectors.tap.minutes' },
  ],
};

export const LOST_M: Origin = {
  kind: 'formula',
  title: 'Live strand that one break costs',
  formula: 'live strand that the graph reaches from the unit with the break and without it',
  source: 'One walk from the hot terminal finds every bridge (Tarjan 1974)',
};

export const BREAK: Origin = {
  kind: 'formula',
  title: 'Volts when a strand breaks',
  formula: 'volts of the live strand that loses most, before and after',
  source:
    'Resistive network per strand behind the load line of the unit, in the season shown: shares and what is dead, not the peak of the pulse',
  inputs: [{ name: 'Sound tie', path: 'defaults.network.jumper.value' }],
};

export const SAVES: Origin = {
  kind: 'formula',
  title: 'Minutes of walking',
  formula:
    'length of the fence / pace; saved: half of the part, less half of each side weighed by how likely the fault is there; the way to the switches aside',
  source:
    'A fault lies anywhere along the fence alike, and what is left is walked to its half on average',
  inputs: [{ name: 'Pace', path: 'defaults.search.walk.value' }],
};

export const BEARING: Origin = {
  kind: 'formula',
  title: 'Side pull of a strand at a bend',
  formula: '2 x tension on the coldest night x sin(turn / 2)',
  source: 'Statics; the greatest of the insulated strands',
};

export const BEARS: Origin = {
  kind: 'formula',
  title: 'What an insulator bears',
  formula: 'side pull at a post, tension at an end',
  source: 'From memory, by kind; put in the maker’s own figure',
};
