/** What a new fence faces: the usual of the property, or what stands on its two sides. */
import { figure, usual } from '../plan/catalogue.js';
import { catalogue } from '../plan/shipped.js';
import { ownCatalogue, type OwnFigures } from '../plan/ownCatalogue.js';
import { JOIN_TOLERANCE, nearest, planLength, pointAt } from '../plan/geometry.js';
import type { Line, Plan, Point } from '../plan/schema.js';
import { paddockAt, paddocksOf } from '../land/paddocks.js';
import { outFor, tallEnough } from '../posts/kinds.js';
import { startingMakeUp } from '../strands/proposal.js';

type Facing = Pick<Line, 'left' | 'right' | 'keepOut' | 'boundary'>;

const usualOf = ({ newLines }: Plan): Facing => ({
  left: [...newLines.left],
  right: [...newLines.right],
  keepOut: [...newLines.keepOut],
  boundary: newLines.boundary,
});

/**
 * A fence with both ends on other lines is within the property: stock come from the paddock that it parts,
 * as that is named or as the lines round it say; what is kept out stays with the boundary.
 * @param id the line itself where it is in the plan already
 */
export function facingOf(plan: Plan, points: readonly Point[], id?: string): Facing {
  const others = Object.fromEntries(Object.entries(plan.lines).filter(([key]) => key !== id));
  const joined = (p: Point) =>
    Object.values(others).some((line) => nearest(line.vertices, p).off <= JOIN_TOLERANCE);
  if (!joined(points[0]!) || !joined(points.at(-1)!)) return usualOf(plan);
  const { paddocks } = paddocksOf(
    others,
    plan.gates,
    undefined,
    plan.paddocks,
    figure(catalogue, 'land.gapBridge'),
    figure(catalogue, 'land.gapLook'),
  );
  const middle = pointAt(points, planLength({ vertices: points }) / 2);
  const face = paddockAt(paddocks, middle);
  if (!face) return { ...usualOf(plan), keepOut: [], boundary: false };
  const named = Object.entries(face.stock).flatMap(([stock, head]) => (head > 0 ? [stock] : []));
  const round = face.edges.flatMap((e) => others[e.line]![e.side as 'left' | 'right']);
  const stock = [...new Set(named.length ? named : round)];
  return { left: stock, right: [...stock], keepOut: [], boundary: false };
}

/** What a line is built of, from what it faces. */
export function builtFor(facing: Facing, plan: OwnFigures) {
  const cat = ownCatalogue(catalogue, plan);
  const strands = startingMakeUp(facing, cat);
  const ids = [...facing.left, ...facing.right, ...facing.keepOut];
  // Bays of the usual length: long for large stock, short for small.
  const small = ids.some((id) => cat.profiles[id]?.size === 'small');
  return {
    strands,
    post: tallEnough(usual('post'), outFor(strands, cat), cat),
    school: usual(small ? 'tension' : 'tensionLongBays'),
  };
}

/** Gives a line that is as it was begun what it faces now that its ends lie where they lie. */
export function settle(plan: Plan, id: string): void {
  const line = plan.lines[id]!;
  const begun = usualOf(plan);
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  if (!(['left', 'right', 'keepOut', 'boundary'] as const).every((k) => same(line[k], begun[k])))
    return;
  // Most points of a drawing end on no fence: then nothing is to be worked out.
  const facing = facingOf(plan, line.vertices, id);
  if (same(facing, begun) || !same(line.strands, builtFor(begun, plan).strands)) return;
  Object.assign(line, facing, builtFor(facing, plan));
}
