/** Which assembly an end gets: the first of a ladder, each stronger than the one before, that holds in every part. */
import { figure, recordOf, usual, type Catalogue, type Soil } from '../plan/catalogue.js';
import { tallEnough } from '../posts/kinds.js';
import type { EndReport, HoldCheck } from '../report/schema.js';
import type { Built } from './assembly.js';
import { judge, type Judged } from './judge.js';
import { pullOf, type Pulled } from './statics.js';

/** An end that waits for its assembly. */
export interface Wanted {
  readonly side: EndReport['side'];
  /** Its strands on the coldest night; of a bend what both runs pull inwards. */
  readonly pulled: Pulled;
  readonly soil: Soil;
  readonly setting: EndReport['setting'];
  /** Kind of the end post, tall enough, and how far posts stand out at least, m. */
  readonly post: string;
  readonly out_m: number;
  readonly topStrand_m: number;
  readonly railHeight_m: number;
  /** How steeply the ground rises along the fence from it, m for each. */
  readonly grade: number;
  readonly frost_m: number;
  /** At what the strands are strung, N. */
  readonly strung_N: number;
  /** Its run is longer than `ends.longRun`. */
  readonly long: boolean;
  /** No rail is longer than this, m. */
  readonly room_m: number;
  readonly gate: boolean;
  /** A guy behind it is in nobody's way. */
  readonly behind: boolean;
}

export interface Proposed {
  readonly built: Built;
  readonly judged: Judged;
  readonly reason: EndReport['reason'];
  /** What ruled out the assembly that would have been next to it. */
  readonly against: HoldCheck | null;
}

/** Depth that practice asks of an end post, m. */
export function usualDepth(
  w: Pick<Wanted, 'soil' | 'topStrand_m' | 'frost_m'>,
  railed: boolean,
  cat: Catalogue,
): number {
  const base = figure(cat, railed && w.soil.firm ? 'ends.depthFirm' : 'ends.depth');
  const taller = Math.max(0, w.topStrand_m - 1.2) * figure(cat, 'ends.depthTaller');
  const frost = w.frost_m > 0 ? w.frost_m + figure(cat, 'ends.frostCover') : 0;
  return Math.max(base + taller, frost);
}

/** Length of a rail of so many heights of this fence, m: as rails are sold, so that no strand moves a post. */
export function railLength(
  heights: number,
  w: Pick<Wanted, 'topStrand_m' | 'room_m'>,
  cat: Catalogue,
): number {
  const step = figure(cat, 'ends.railStep');
  const wants = Math.ceil((heights * w.topStrand_m) / step - 1e-6) * step;
  return Math.min(w.room_m, Math.max(figure(cat, 'ends.railLeast'), wants));
}

/** An assembly of a kind with the measures that are usual for it here; some said otherwise. */
export function usualBuilt(
  kind: Built['kind'],
  w: Wanted,
  cat: Catalogue,
  own: Partial<Pick<Built, 'rail_m' | 'depth_m' | 'post' | 'foot' | 'wire' | 'shared'>> = {},
): Built {
  const railed = isRailed(kind);
  const foot = own.foot ?? (w.side === 'bend' ? 'block' : 'post');
  const rail_m = own.rail_m ?? usualReach(kind, w, cat);
  const rise_m = w.grade * rail_m;
  // A level rail meets a brace post on lower ground further up it.
  const brace = tallEnough(usual('bracePost'), Math.max(w.out_m, w.railHeight_m - Math.min(0, rise_m) + 0.1), cat); // prettier-ignore
  const stood = kind === 'stay' && foot === 'post';
  return {
    kind,
    rail_m,
    railHeight_m: w.railHeight_m,
    rise_m,
    foot,
    wire: own.wire ?? (w.gate && railed ? 'both' : 'end'),
    post: own.post ?? w.post,
    second: railed ? brace : stood ? tallEnough(usual('bendPost'), w.out_m, cat) : null,
    depth_m: own.depth_m ?? usualDepth(w, railed, cat),
    ...(own.shared ? { shared: true } : {}),
  };
}

const isRailed = (kind: Built['kind']): boolean =>
  kind === 'h' || kind === 'double-h' || kind === 'n';

/** How far an assembly of a kind usually reaches along the fence, or behind it, m. */
function usualReach(kind: Built['kind'], w: Wanted, cat: Catalogue): number {
  if (isRailed(kind)) return railLength(figure(cat, 'ends.railHeights'), w, cat);
  if (kind === 'tie-back') return figure(cat, 'ends.guyDistance');
  return Math.min(w.room_m, figure(cat, 'ends.stayDistance'));
}

/** The deepest that a post can stand and still reach the top strand, m. */
export const deepest = (post: string, out_m: number, cat: Catalogue): number =>
  recordOf(cat.posts, post).length_m - out_m;

/** Assemblies of one kind from the cheapest to the strongest, and why they are thought of. */
interface Rung {
  readonly reason: EndReport['reason'];
  readonly options: readonly Built[];
}

/** The ladder of an end: what practice would take first, and what it would take where that does not hold. */
function ladder(w: Wanted, cat: Catalogue): Rung[] {
  const { pull_total_N: F } = pullOf(w.pulled);
  const rung = (kind: Built['kind'], reason: EndReport['reason']): Rung => ({ reason, options: optionsOf(kind, w, cat) }); // prettier-ignore
  const behind = (reason: EndReport['reason']) => (w.behind ? [rung('tie-back', reason)] : []);
  if (w.side === 'bend') return [rung('post', 'bend'), rung('stay', 'bend'), ...behind('bend')];
  if (recordOf(cat.posts, w.post).conducts) return [rung('concreted', 'steel')];
  const light = figure(cat, 'ends.lightPull');
  const freezes = w.frost_m >= figure(cat, 'ends.frostDeep');
  const tight = w.strung_N >= figure(cat, 'ends.tight');
  const many = tight && w.pulled.strand_heights_m.length > figure(cat, 'ends.manyStrands');
  const long = tight && w.long;
  return [
    ...(freezes && F <= 2 * light ? [rung('n', 'frost')] : []),
    // A gate swings on it: a stay holds one way only.
    ...(!freezes && F <= light && !w.gate ? [rung('stay', 'light')] : []),
    ...(many || long ? [] : [rung('h', 'usual')]),
    rung('double-h', many ? 'many' : long ? 'long' : 'soft'),
    ...behind('soft'),
  ];
}

/** A kind with longer rails, then deeper, then with longer posts. */
function optionsOf(kind: Built['kind'], w: Wanted, cat: Catalogue): Built[] {
  const railed = isRailed(kind);
  const own = figure(cat, 'ends.railHeights');
  const rails = railed && own < LONGEST ? [own, LONGEST] : [own];
  // Soft ground wants a second bay rather than a single one on longer posts.
  const every = longerPosts(w, cat);
  const reaches = (post: string) =>
    deepest(post, w.out_m, cat) >= usualDepth(w, railed, cat) - 0.01;
  const one = kind === 'h' || kind === 'n' || kind === 'stay';
  const posts = one ? [every.find(reaches) ?? every.at(-1)!] : every;
  const all = posts.flatMap((post) => {
    const { depth_m: first } = usualBuilt(kind, w, cat, { post });
    const digs = figure(cat, 'ends.deepest');
    return depths(first, deepest(post, w.out_m, cat), digs).flatMap((depth_m) =>
      rails.map((n) => {
        const longer = railed ? { rail_m: railLength(n, w, cat) } : {};
        return usualBuilt(kind, w, cat, { post, depth_m, ...longer });
      }),
    );
  });
  // A post that is too short for the usual depth serves only where none is longer.
  const least = usualDepth(w, railed, cat) - 0.01;
  const deep = all.filter((b) => b.depth_m >= least);
  return deep.length > 0 ? deep : all.slice(-1);
}
/** The longest rail that a school asks for, in heights of the fence. */
const LONGEST = 2.5;

/** From a usual depth to the most that a post has, no further than anybody digs, m. */
function depths(usual: number, has: number, digs: number): number[] {
  const most = Math.min(has, Math.max(usual, digs));
  const out = [Math.max(0.2, Math.min(usual, most))];
  for (let d = usual + DEEPER; d <= most + 1e-9; d += DEEPER) out.push(d);
  return out;
}
/** Posts go deeper by this at a time, m. */
const DEEPER = 0.15;

/** The end post and the longer ones of its family, none longer than can be used. */
function longerPosts({ post, out_m, ...w }: Wanted, cat: Catalogue): string[] {
  const own = recordOf(cat.posts, post);
  const deep = Math.max(figure(cat, 'ends.deepest'), usualDepth(w, false, cat));
  const most = out_m + deep + SPARE;
  return Object.entries(cat.posts)
    .filter(
      ([id, p]) =>
        id === post ||
        (p.use === own.use &&
          p.family === own.family &&
          p.length_m > own.length_m &&
          p.length_m <= most),
    ) // prettier-ignore
    .sort(([, a], [, b]) => a.length_m - b.length_m)
    .map(([id]) => id);
}

/** A post may be so much longer than it need be, m: they are sold in steps. */
const SPARE = 0.35;

/**
 * The assembly that an end gets when nobody has chosen one: the first that holds in every part; where none does, the
 * one that comes nearest, and says so.
 */
export function propose(w: Wanted, cat: Catalogue): Proposed {
  const on = { soil: w.soil, setting: recordOf(cat.settings, w.setting) };
  const of = (built: Built) => ({ built, judged: judge(built, w.pulled, on, cat) });
  let against: HoldCheck | null = null;
  let nearest: Omit<Proposed, 'reason' | 'against'> | null = null;
  for (const { reason, options } of ladder(w, cat)) {
    const { first, strongest } = firstOf(options, of);
    if (first) {
      const asked = pullOf(w.pulled).pull_total_N > figure(cat, 'ends.engineer');
      return { ...first, reason: asked ? 'engineer' : against ? failed(reason) : reason, against };
    }
    against = strongest.judged.weakest;
    if (!nearest || against.share < nearest.judged.weakest.share) nearest = strongest;
  }
  return { ...nearest!, reason: 'none', against };
}

/** The first of a kind that holds, in as few tries as will do, and the strongest that was tried. */
function firstOf<T extends { readonly judged: Judged }>(
  options: readonly Built[],
  of: (built: Built) => T,
): { readonly first: T | null; readonly strongest: T } {
  const usual = of(options[0]!);
  if (holds(usual) || options.length === 1)
    return { first: holds(usual) ? usual : null, strongest: usual };
  const strongest = of(options.at(-1)!);
  // Where the strongest does not hold, none does; but a long rail buckles where a shorter one does not.
  if (!holds(strongest) && strongest.judged.weakest.of !== 'rail')
    return { first: null, strongest };
  for (const built of options.slice(1, -1)) {
    const one = of(built);
    if (holds(one)) return { first: one, strongest };
  }
  return { first: holds(strongest) ? strongest : null, strongest };
}

const holds = ({ judged }: { readonly judged: Judged }): boolean => judged.weakest.share <= 1;

/** Why an assembly stands where a lighter one did not hold. */
const failed = (reason: EndReport['reason']): EndReport['reason'] => reason === 'bend' || reason === 'steel' ? reason : 'soft'; // prettier-ignore
