import {
  add,
  eachLine,
  onLine,
  remove,
  type Found,
  type Mend,
  type Rule,
  type LineScene,
} from '../../../findings/rule.js';
import { recordOf } from '../../../plan/catalogue.js';
import type { Line } from '../../../plan/schema.js';
import type { LineReport } from '../../../report/schema.js';
import { bendsOf, insulatorAt, unfit, type Unfit } from '../../../strands/insulators.js';

const WHY: Readonly<Record<NonNullable<Unfit>, string>> = {
  place: 'it is not made for that place',
  post: 'it does not fit that kind of post',
  form: 'it does not take that wire: stiff wire springs out of a claw that is made for rope',
  hole: 'the wire does not go through its hole',
};

/** An insulator that does not fit its post or its wire, or that a bend or the tension pulls off. */
export const insulatorUnsuited: Rule = {
  id: 'insulator-unsuited',
  cause: 'Insulator does not suit',
  step: 'joins',
  kind: 'mend',
  source: {
    mark: 'practice',
    text: 'By post, hole and wire; claws made for rope do not take stiff wire; side pulls from memory',
  },
  check: (scene) =>
    eachLine(scene).flatMap(([line, report]) => [
      ...chosenWrong(scene, line, report),
      ...overloaded(scene, line, report),
    ]),
};

/** What was chosen and fits neither the posts nor the strands that the line has. */
function chosenWrong({ cat }: LineScene, line: Line, { posts }: LineReport): Found[] {
  const wires = [...new Set(line.strands.filter((s) => s.insulated).map((s) => s.wire))];
  const own = new Set(posts.map((p) => recordOf(cat.posts, p.kind).family));
  return Object.entries(line.insulators ?? {}).flatMap(([spot, id]): Found[] => {
    const families =
      spot === 'end' ? [null] : spot === 'bend' ? bendFamilies(posts, cat) : own.has(spot) ? [spot] : []; // prettier-ignore
    for (const family of families)
      for (const wire of wires) {
        const why = unfit(id, family, wire, cat);
        if (why === null) continue;
        const { name } = recordOf(cat.insulators, id);
        return [
          {
            key: `${line.id} ${spot}`,
            title: `Insulator does not suit on ${line.name}`,
            why: `${name} at ${spot === 'end' ? 'the ends' : spot === 'bend' ? 'the bends' : `posts of ${spot}`} with ${recordOf(cat.wires, wire).name}: ${WHY[why]}.`,
            todo: 'Take one that fits post and wire.',
            place: onLine(line),
            mends: () => [
              {
                words: 'Take the one that fits',
                patch: [remove(`/lines/${line.id}/insulators/${spot}`)],
              },
            ],
          },
        ];
      }
    return [];
  });
}

const bendFamilies = (posts: LineReport['posts'], cat: LineScene['cat']): string[] =>
  posts.filter((p) => p.role === 'bend').map((p) => recordOf(cat.posts, p.kind).family);

/** Bends whose side pull is more than what the strand hangs on there bears. */
function overloaded({ cat, say, where }: LineScene, line: Line, report: LineReport): Found[] {
  const wire = line.strands.find((s) => s.insulated && !s.offset_m)?.wire;
  if (wire === undefined) return [];
  return bendsOf(line, report.runs, report.strain).flatMap((bend): Found[] => {
    const post = report.posts.find((p) => Math.abs(p.s_m - bend.at_m) < 0.01);
    const family = recordOf(cat.posts, post?.kind ?? line.post).family;
    const id = insulatorAt(line, 'bend', family, wire, cat, bend.bearing_N);
    if (id === null) return [];
    const { name, bearing_N } = recordOf(cat.insulators, id);
    if (bend.bearing_N <= bearing_N) return [];
    const words = 'What bears it';
    const set = line.insulators
      ? add(`/lines/${line.id}/insulators/bend`, 'bend')
      : add(`/lines/${line.id}/insulators`, { bend: 'bend' });
    const mends: Mend[] = [
      ...(line.insulators?.bend ? [{ words, patch: [remove(`/lines/${line.id}/insulators/bend`)] }] : []), // prettier-ignore
      ...(unfit('bend', family, wire, cat) === null ? [{ words, patch: [set] }] : []),
    ];
    return [
      {
        key: `${line.id} ${bend.vertex}`,
        cause: 'Bend pulls its insulators off',
        title: `A bend of ${line.name} pulls its insulators off`,
        why: `At ${where(line.id, bend.at_m)} each strand bears on its insulator with up to ${say.newtons(bend.bearing_N)} on the coldest night; ${name.toLowerCase()} is good for ${say.newtons(bearing_N)}.`,
        todo: 'A reel on a bracket, on the side where the wire pulls against the post; or a corner with ends of its own.',
        place: onLine(line, bend.at_m),
        badness: bend.bearing_N / bearing_N,
        mends: () => mends,
      },
    ];
  });
}
