/** What a number of the plan may be, as its schema says: one place for the door and for every field. */
import { PlanSchema } from './schema.js';

export interface Limits {
  readonly min: number;
  readonly max: number;
  readonly whole: boolean;
}

interface Node {
  readonly type?: string;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly properties?: Readonly<Record<string, Node>>;
  readonly patternProperties?: Readonly<Record<string, Node>>;
  readonly items?: Node;
  readonly anyOf?: readonly Node[];
}

/**
 * Limits of the number at a path of the plan, such as `sizing/reserve`, in its SI unit.
 * @param path keys with slashes between; * for any key of a table and any rank of a list
 * @throws RangeError when the plan has no number there
 */
export function limitsAt(path: string): Limits {
  let node = PlanSchema as Node | undefined;
  for (const key of path.split('/'))
    node =
      key === '*' ? (node?.items ?? firstOf(node?.patternProperties)) : node?.properties?.[key];
  const number = [node, ...(node?.anyOf ?? [])].find(
    (n) => n?.type === 'number' || n?.type === 'integer',
  );
  if (!number) throw new RangeError(`${path}: the plan has no number there`);
  const { minimum: min = -Infinity, maximum: max = Infinity, type } = number;
  return { min, max, whole: type === 'integer' };
}

const firstOf = (table: Node['patternProperties']) => (table ? Object.values(table)[0] : undefined);
