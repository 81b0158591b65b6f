/** Who must be held: the stock on both sides, what is kept out, and what the line meets. */
import { Type } from '../../base/type.js';
import { closed, stock, words } from '../../plan/schemaParts.js';
import { DemandsSchema } from '../strands/planKeys.js';

export const keys = {
  plan: {
    line: {
      left: stock,
      right: stock,
      keepOut: Type.Array(words(40), { maxItems: 8 }),
      boundary: Type.Boolean(),
      stepOver: Type.Optional(Type.Boolean({ description: 'people step over it' })),
      snow: Type.Optional(Type.Boolean({ description: 'snow lies, or the ground freezes' })),
      dim: Type.Optional(Type.Boolean({ description: 'stock meet it in dim light' })),
      later: Type.Optional(
        Type.Array(words(40), {
          maxItems: 8,
          description: 'profile ids that it must hold, or keep out, at some later time',
        }),
      ),
      demands: Type.Optional(DemandsSchema),
    },
    property: {
      newLines: Type.Object(
        {
          left: stock,
          right: stock,
          keepOut: stock,
          boundary: Type.Boolean(),
          model: Type.Optional(words(40)),
        },
        { ...closed, description: 'what a newly drawn line, and a new energiser, starts with' },
      ),
    },
  },
  report: { line: {}, property: {} },
} as const;
