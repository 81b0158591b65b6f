/** The strands of a line, the designs that name make-ups, and how the rules stand to them. */
import { Type } from '../../base/type.js';
import { byId, id, maybe } from '../../plan/schemaParts.js';
import { DesignSchema, StrandSchema } from './planKeys.js';
import { ProposalSchema, RequirementSchema, RuleMarkSchema } from './reportKeys.js';

export const keys = {
  plan: {
    line: {
      strands: Type.Array(StrandSchema, { maxItems: 20, description: 'from the ground up' }),
      design: Type.Optional(id),
    },
    property: { designs: Type.Optional(byId(DesignSchema)) },
  },
  report: {
    line: {
      requirement: Type.Union([RequirementSchema, Type.Null()]),
      proposal: Type.Union([ProposalSchema, Type.Null()]),
      marks: Type.Array(RuleMarkSchema, { description: 'every rule held against the strands' }),
      effectiveGap_m: maybe,
    },
    property: {},
  },
} as const;
