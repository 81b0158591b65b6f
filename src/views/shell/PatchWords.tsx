import { say } from '../../core/base/units.js';
import type { PatchStep, Plan, Strand } from '../../core/plan/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';

/** What a patch would change, in words: the old value and the new one. */
export function PatchWords({ patch }: { patch: readonly PatchStep[] }) {
  const plan = useSession((s) => s.plan);
  const units = useUnits();
  const cat = useCatalogue();
  const words = (value: unknown, path: string): string => {
    if (Array.isArray(value) && path.endsWith('/pins')) return `${value.length} pinned posts`;
    if (Array.isArray(value) && /\/(left|right)$/.test(path))
      return (value as string[]).map((k) => cat.profiles[k]?.name ?? k).join(', ') || 'none';
    if (Array.isArray(value)) {
      return (
        (value as Strand[])
          .map((s) => {
            const form = cat.wires[s.wire]?.form ?? 'plain';
            const kind = [s.duty === 'live' ? '' : s.duty, form === 'plain' ? '' : form];
            return [say(s.height_m, 'height', units), ...kind].filter(Boolean).join(' ');
          })
          .join(', ') || 'none'
      );
    }
    if (value === undefined) return 'nothing';
    if (typeof value === 'object' && value !== null)
      return (value as { name?: string }).name ?? 'something';
    if (value === null) return 'from the catalogue';
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    if (typeof value === 'number')
      return path.endsWith('_m') ? say(value, 'length', units) : String(value);
    const id = String(value);
    return cat.energisers[id]?.name ?? cat.posts[id]?.name ?? cat.schools[id]?.name ?? id;
  };
  return (
    <dl className="space-y-1">
      {patch.map((step) => (
        <div key={step.path}>
          <dt className="label">{placeWords(step.path, plan)}</dt>
          <dd>
            <del className="text-soft">{words(read(plan, step.path), step.path)}</del>
            {' → '}
            <ins className="no-underline font-semibold">{words(step.value, step.path)}</ins>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function read(plan: Plan, path: string): unknown {
  return path
    .slice(1)
    .split('/')
    .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], plan);
}

const FIELDS: Record<string, string> = {
  strands: 'strands, from the ground up',
  duty: 'duty of the strand',
  maxBay_m: 'longest bay',
  post: 'line posts',
  kind: 'kind of corner',
  school: 'tension',
  tensioner: 'tensioner in each strand',
  tensionerAt: 'where it is tensioned',
  tensioners: 'tensioners by hand',
  springs: 'spring in each strand',
  tie: 'tied to its ends',
  join: 'joined with',
  model: 'energiser',
  rods: 'earth rods',
  rodSpacing_m: 'distance between rods',
  cable: 'cable under the gate',
  pins: 'pinned posts',
  left: 'stock on the left',
  right: 'stock on the right',
  swing: 'the gate swings',
  e: 'the corner east',
  n: 'the corner north',
};

function placeWords(path: string, plan: Plan): string {
  const [, table, id] = path.split('/');
  const named = (plan as unknown as Record<string, Record<string, { name?: string }>>)[table!]?.[
    id!
  ]?.name;
  const field = path.split('/').at(-1)!;
  return `${named ?? table}: ${FIELDS[field] ?? field}`;
}
