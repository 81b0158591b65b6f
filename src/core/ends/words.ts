/** What is said of ends, in words. */
import type { Catalogue } from '../plan/catalogue.js';
import type { EndReport, HoldCheck } from '../report/schema.js';

/** What could give way. */
export const HELD_WORDS: Readonly<Record<HoldCheck['of'], string>> = {
  lift: 'end post lifts',
  foot: 'foot of the end post moves',
  second: 'foot of the second post moves',
  wire: 'brace wire',
  rail: 'rail or strut buckles',
  bend: 'end post bends',
  log: 'buried log gives',
};

/** What an end is called by the post at which it stands. */
export const ROLE_WORDS: Readonly<Record<string, string>> = {
  end: 'end',
  corner: 'corner',
  gate: 'gate post',
  bend: 'bend',
};

/** How quantities are said: in the property's units. */
export interface Say {
  newtons(n: number): string;
  moment(n: number): string;
  metres(m: number): string;
}

const amount = (c: HoldCheck, x: number, say: Say): string =>
  c.unit === 'N' ? say.newtons(x) : c.unit === 'Nm' ? say.moment(x) : say.metres(x);

/** "end post lifts: 2,100 N asked, 2,400 N given, wanted 1.5 times". */
export const checkWords = (c: HoldCheck, say: Say): string =>
  `${HELD_WORDS[c.of]}: ${amount(c, c.asked, say)} asked, ${amount(c, c.gives, say)} given${c.safety === 1 ? '' : `, wanted ${c.safety} times`}`;

/** The figure that decided which assembly stands. */
export function reasonWords(e: EndReport, say: Say, cat: Catalogue): string {
  const pull = `${say.newtons(e.pull_N)} on the coldest night`;
  const ruled = e.against ? checkWords(e.against, say) : '';
  switch (e.reason) {
    case 'hand':
      return 'set by hand';
    case 'bend':
      return `${Math.round(e.turn_deg)} degrees: ${say.newtons(e.pull_N)} sideways on the coldest night${ruled ? `; a lighter one does not hold (${ruled})` : ''}`;
    case 'steel':
      return `posts of steel; ${pull}`;
    case 'frost':
      return `the ground freezes deep enough to lift posts: the strut presses the second one down; ${pull}`;
    case 'light':
      return `a light pull: ${pull}, under ${say.newtons(cat.defaults['ends.lightPull']!.value)}`;
    case 'many':
      return `${e.strands.length} tight strands, more than ${cat.defaults['ends.manyStrands']!.value}; ${pull}`;
    case 'long':
      return `a tight run longer than ${say.metres(cat.defaults['ends.longRun']!.value)}; ${pull}`;
    case 'usual':
      return `${pull}: an H holds in every part`;
    case 'soft':
      return `a lighter one does not hold here (${ruled})`;
    case 'short':
      return 'the run has no room for two braces: one serves both ways';
    case 'engineer':
      return `${pull}: more than this program proposes for. Ask an engineer`;
    case 'none':
      return `nothing of the catalogue holds here (${ruled})`;
  }
}
