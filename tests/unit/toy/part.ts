/** A part that the program does not have: bird scarers along a line, to see that a part is one folder. */
import { Type } from '../../../src/core/base/type.js';
import { lineStage, type Part } from '../../../src/core/parts/part.js';
import { eachLine } from '../../../src/core/findings/rule.js';
import type { GroundPiece } from '../../../src/core/parts/ground/index.js';

const Scarer = Type.Object({ at_m: Type.Number({ minimum: 0 }), loud: Type.Boolean() });
const Quiet = Type.Object({ from_m: Type.Number(), to_m: Type.Number() });

interface Kept {
  scarers?: { at_m: number; loud: boolean }[];
  quiet?: { from_m: number; to_m: number }[];
}
interface Piece {
  readonly scarers: number;
  readonly perKm: number;
}

export const toy: Part = {
  id: 'toy',
  keys: {
    plan: {
      line: { scarers: Type.Optional(Type.Array(Scarer)), quiet: Type.Optional(Type.Array(Quiet)) },
      property: {
        posters: Type.Record(
          Type.String(),
          Type.Object({ id: Type.String(), line: Type.String(), at_m: Type.Number() }),
        ),
      },
    },
    report: {
      line: { scarers: Type.Number(), perKm: Type.Number() },
      property: { loudest: Type.Union([Type.String(), Type.Null()]) },
    },
  },
  places: { spots: ['scarers'], stretches: ['quiet'], tables: { posters: { goes: true } } },
  check({ plan, say }) {
    for (const [id, line] of Object.entries(plan.lines))
      ((line as Kept).scarers ?? []).forEach((s, i) => {
        if (s.at_m > 1000) say(`/lines/${id}/scarers/${i}/at_m`, 'too far off to be heard');
      });
  },
  turned(_plan, line) {
    for (const s of (line as Kept).scarers ?? []) s.loud = !s.loud;
  },
  line: lineStage({
    needs: ({ line }, { ground }: { ground: GroundPiece }) => ({
      scarers: (line as Kept).scarers,
      ground_m: ground.ground_m,
    }),
    work: ({ scarers, ground_m }): Piece => ({
      scarers: scarers?.length ?? 0,
      perKm: (1000 * (scarers?.length ?? 0)) / ground_m,
    }),
  }),
  property:
    () =>
    ({ lines }) => {
      const all = Object.entries(lines as unknown as Record<string, { toy: Piece }>);
      const [first] = all.sort((a, b) => b[1].toy.scarers - a[1].toy.scarers);
      return { loudest: first && first[1].toy.scarers > 0 ? first[0] : null };
    },
  count: ({ of }) => [['sign', (of as { toy: Piece }).toy.scarers]],
  countProperty: ({ plan }) =>
    Object.fromEntries(
      Object.keys((plan as unknown as { posters: object }).posters).map((id) => [
        id,
        [['gate', 1]],
      ]),
    ),
  rules: [
    {
      id: 'too-loud',
      cause: 'Too loud',
      step: 'noise',
      kind: 'mend',
      source: { mark: 'assumed', text: 'A toy' },
      check: (scene) =>
        eachLine(scene).flatMap(([line, report]) =>
          (report as unknown as Piece).perKm > 10
            ? [
                {
                  key: line.id,
                  title: `${line.name} is too loud`,
                  why: 'More than ten scarers a kilometre.',
                  todo: 'Take some away.',
                  place: { line: line.id },
                },
              ]
            : [],
        ),
    },
  ],
  migrations: [{ to: 3, up: (plan) => (plan['posters'] ??= {}) }],
};
