import type { APIRoute } from 'astro';
import { PlanSchema } from '../../../core/plan/schema.js';
import { ReportSchema } from '../../../core/report/schema.js';
import { fault, json } from '../../../server/http.js';

export const GET: APIRoute = ({ params }) => {
  if (params.name === 'plan') return json(PlanSchema);
  if (params.name === 'report') return json(ReportSchema);
  return fault(404, 'there are the schemas "plan" and "report"');
};
