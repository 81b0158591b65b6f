/** The ground under a line: its profile, and the legs over it. */
import { bearing, distance, planLength, stations } from '../../plan/geometry.js';
import type { Vertex } from '../../plan/schema.js';
import type { Leg } from '../../report/schema.js';
import { gAt, profileOf, zAt, type Profile } from '../../terrain/profile.js';
import { lineStage, type Door, type Shown } from '../part.js';
import { rising } from '../door.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { offGround } from './rules/offGround.js';

export interface GroundPiece extends Shown<typeof keys> {
  readonly profile: Profile;
}

export const ground = {
  id: 'ground' as const,
  keys,
  ...placed,
  check: (door: Door) => rising(door, 'levels'),
  line: lineStage({
    needs: ({ line: { vertices, levels }, ground }) => ({ vertices, levels, ground }),
    work({ vertices, levels, ground }): GroundPiece {
      const profile = profileOf(vertices, ground, levels);
      return {
        profile,
        plan_m: planLength({ vertices }),
        ground_m: gAt(profile, Infinity),
        legs: legsOf(vertices, profile),
        unknownGround: profile.unknown.map(([a, b]) => [a, b] as [number, number]),
      };
    },
  }),
  rules: [offGround],
};

function legsOf(vertices: readonly Vertex[], profile: Profile): Leg[] {
  const at = stations(vertices);
  return vertices.slice(1).map((b, i) => {
    const a = vertices[i]!;
    const plan_m = distance(a, b);
    const rise_m = zAt(profile, at[i + 1]!) - zAt(profile, at[i]!);
    return {
      plan_m,
      ground_m: gAt(profile, at[i + 1]!) - gAt(profile, at[i]!),
      bearing_deg: bearing(a, b),
      rise_m,
      grade: plan_m === 0 ? 0 : rise_m / plan_m,
    };
  });
}
