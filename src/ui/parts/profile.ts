/** The ground along a line of the plan: read once, whoever draws it. */
import type { Line } from '../../core/plan/schema.js';
import type { Ground } from '../../core/terrain/ground.js';
import { profileOf, type Profile } from '../../core/terrain/profile.js';
import { useSession } from '../../session/session.js';

const known = new WeakMap<Line, { readonly ground: Ground; readonly profile: Profile }>();

export function useProfile(line: Line): Profile {
  const ground = useSession((s) => s.ground);
  let made = known.get(line);
  if (made?.ground !== ground) {
    made = { ground, profile: profileOf(line.vertices, ground, line.levels) };
    known.set(line, made);
  }
  return made.profile;
}
