/** What is bought beside the fence itself: tools, safety gear, hire, and items of the property's own. */
import { PROPERTY } from '../../report/uses.js';
import { ownItem } from '../../plan/book.js';
import { kitOf, type Standing } from '../../supplies/kit.js';
import type { EndsPiece } from '../ends/index.js';
import type { Items, Part, WholeGiven } from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import type { Door } from '../part.js';
import { keys } from './keys.js';

export const supplies = {
  id: 'supplies' as const,
  keys,
  check({ plan, cat, say }: Door): void {
    for (const table of ['book', 'supplyRows'] as const)
      for (const item of Object.keys(plan[table] ?? {}))
        if (!Object.hasOwn(cat.prices, item))
          say(`/${table}/${item}`, 'the price book has no such item');
  },
  countProperty({ plan, cat, lines }: WholeGiven): Record<string, Items> {
    const stood = Object.fromEntries(
      Object.values(plan.lines)
        .filter((l) => !l.standing)
        .map((l): [string, Standing] => {
          const of = (lines as Record<string, { posts: PostsPiece; ends: EndsPiece }>)[l.id]!;
          const { brought } = of.ends;
          // A post that another line brings is set there.
          const ends = of.ends.ends.filter(
            (e) => !brought.some((s) => Math.abs(s - e.at_m) < 0.01),
          );
          return [l.id, { own: of.posts.own, ends }];
        }),
    );
    const own = Object.entries(plan.ownItems ?? {}).map(([id, { quantity }]): Items[number] => [
      ownItem(id),
      quantity,
    ]);
    return { [PROPERTY]: [...kitOf(plan, stood, cat), ...own] };
  },
} satisfies Part;
