/** Ways to mend what is wrong with a strand's tension; each is tried before it is offered. */
import { add, replace, type Mend, type LineScene } from '../../../findings/rule.js';
import type { Line } from '../../../plan/schema.js';
import { jointsOfLine, weakestJoint } from '../../../wire/wires.js';

/** Other settings, the nearest first. */
export function otherSchools(
  { cat }: LineScene,
  line: Line,
  from_N: number,
  way: 'tighter' | 'softer',
): Mend[] {
  const sign = way === 'tighter' ? 1 : -1;
  return Object.entries(cat.schools)
    .filter(([, s]) => sign * (s.tension_N - from_N) > 0)
    .sort((a, b) => sign * (a[1].tension_N - b[1].tension_N))
    .map(([id, { name }]) => ({
      words: `Set it ${name.toLowerCase()}`,
      patch: [replace(`/lines/${line.id}/school`, id)],
    }));
}

/** Springs, where the line has none. */
export const springsIn = (line: Line): Mend[] =>
  line.springs
    ? []
    : [
        {
          words: 'Put a spring in each strand',
          patch: [add(`/lines/${line.id}/springs`, true)],
        },
      ];

/** Joints that keep more of the wire, where there are any: the plainest first. */
export function betterJoints({ cat }: LineScene, line: Line): Mend[] {
  const now = weakestJoint(line, cat).efficiency;
  const own = jointsOfLine(line);
  return Object.entries(cat.joints)
    .filter(([, j]) => j.efficiency > now + 1e-9)
    .sort((a, b) => a[1].efficiency - b[1].efficiency)
    .map(([id, j]) => {
      const weak = (['tie', 'join'] as const).filter(
        (use) => cat.joints[own[use]]!.efficiency < j.efficiency,
      );
      return {
        words: `${j.name}s in place of weaker joints`.replace('ss in', 's in'),
        patch: weak.map((use) => add(`/lines/${line.id}/${use}`, id)),
      };
    });
}

/** Shorter bays; none where the posts were placed, or would stand too close. */
export function shorterBays({ say }: LineScene, line: Line, bay_m: number): Mend[] {
  const bay = Math.floor(10 * bay_m) / 10;
  if (line.placed || bay < 1) return [];
  return [
    {
      words: `Bays of ${say.along(bay)} at most`,
      patch: [replace(`/lines/${line.id}/maxBay_m`, bay)],
    },
  ];
}

/** The tensioner where the slackest bay keeps most. */
export const bestPlace = (line: Line): Mend => ({
  words: 'Tension it from the best place',
  patch: [
    add(`/lines/${line.id}/tensionerAt`, 'best'),
    ...(line.tensioners ? [{ op: 'remove' as const, path: `/lines/${line.id}/tensioners` }] : []),
  ],
});
