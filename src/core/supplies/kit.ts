/** Tools, safety gear and hire that the work of a plan wants: once for the property, whoever has them already. */
import { addedPosts } from '../ends/takes.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Plan } from '../plan/schema.js';
import type { EndReport, Post } from '../report/schema.js';
import { jointsOfLine } from '../wire/wires.js';
import type { Items } from './takeoff.js';

/** Posts of a line that it brings itself, and its ends. */
export interface Standing {
  readonly own: readonly Pick<Post, 'kind' | 'role'>[];
  readonly ends: readonly EndReport[];
}

const BY_HAND = new Set(['steel', 'fibreglass', 'flexible']);
/** Light posts that go in by hand. */
export const byHand = (kind: string, cat: Catalogue): boolean =>
  BY_HAND.has(recordOf(cat.posts, kind).family);

const ALONG: ReadonlySet<Post['role']> = new Set(['line', 'bend', 'joint']);
/** Posts that are set one after another along a line; all others belong to an end. */
export const isLinePost = (p: Pick<Post, 'role'>): boolean => ALONG.has(p.role);

/** Ways to set a post that want a driver; the others want a hole. */
export const DRIVEN: ReadonlySet<EndReport['setting']> = new Set(['driven', 'wet'] as const);

/**
 * What the whole work wants.
 * @param stood by line, those whose posts are new
 */
export function kitOf(
  plan: Pick<Plan, 'lines' | 'energisers' | 'connectors' | 'noDriver'>,
  stood: Readonly<Record<string, Standing>>,
  cat: Catalogue,
): Items {
  const lines = Object.values(plan.lines).filter((l) => l.strands.some((s) => !s.kept));
  if (lines.length === 0) return [];
  const count = { byHand: 0, driven: 0, bored: 0 };
  for (const { own, ends } of Object.values(stood)) {
    for (const p of own) {
      // What stands at an end is set as the end says, below.
      if (!isLinePost(p)) continue;
      if (byHand(p.kind, cat)) count.byHand++;
      else count[plan.noDriver ? 'bored' : 'driven']++;
    }
    for (const e of ends)
      count[DRIVEN.has(e.setting) ? 'driven' : 'bored'] += 1 + addedPosts(e).length;
  }
  const days = (n: number, a_day: string) => Math.ceil(n / figure(cat, a_day));
  const crew = figure(cat, 'supplies.crew');
  const plain = lines.some((l) => l.strands.some((s) => !s.kept && recordOf(cat.wires, s.wire).form === 'plain')); // prettier-ignore
  const pressed = lines.some((l) => Object.values(jointsOfLine(l)).some((j) => recordOf(cat.joints, j).price === 'joiner.sleeve')); // prettier-ignore
  const one = (wanted: boolean) => (wanted ? 1 : 0);
  return [
    ['tool.jenny', one(plain)],
    ['tool.pliers', 1],
    ['tool.crimp', one(pressed || plan.connectors === 'tap')],
    ['tool.handle', one(lines.some((l) => l.tensioner))],
    ['tool.driver', one(count.byHand > 0)],
    ['tool.voltmeter', one(Object.keys(plan.energisers).length > 0)],
    ['tool.eyes', crew],
    ['tool.gloves', crew],
    ['tool.bucket', 1],
    ['hire.driver', days(count.driven, 'supplies.drivenADay')],
    ['hire.auger', days(count.bored, 'supplies.boredADay')],
  ];
}
