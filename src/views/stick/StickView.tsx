import { ArrowLeft, Printer } from 'lucide-react';
import type { Plan, Strand } from '../../core/plan/schema.js';
import { PARTS_PER_SHEET, SHEET, stickParts } from '../../core/strands/stick.js';
import { range } from '../../core/base/numbers.js';
import { numbered, type Leaf } from '../print/leaf.js';
import { usePlanOf } from '../print/recordsOf.js';
import { StickSheet } from './StickSheet.js';
import { Button } from '../../ui/parts/Button.js';

/** What the stick is of: a line or a design, named in the address. */
export interface Marked {
  readonly name: string;
  readonly strands: readonly Strand[];
}

/** A 1:1 strip to be printed, cut and glued to a batten. */
export function StickView({ id }: { id: string }) {
  const plan = usePlanOf(id);
  if (plan === null) return <p className="p-6">Drawing the stick …</p>;
  const of = typeof plan === 'string' ? null : wantedOf(plan);
  if (typeof plan === 'string' || !of)
    return (
      <p role="alert" className="p-6">
        {typeof plan === 'string' ? plan : 'There is no such line or design.'}{' '}
        <a className="underline" href={`/p/${id}/strands`}>
          Back to Strands
        </a>
      </p>
    );
  return (
    <main>
      <style>{`@page { size: ${SHEET.width}mm ${SHEET.height}mm; margin: 0 } @media print { .stick-sheet { margin: 0 !important; border: 0 !important; box-shadow: none } }`}</style>
      <div className="no-print border-rule bg-panel sticky top-0 flex flex-wrap items-center gap-3 border-b p-3">
        <a className="button" href={`/p/${id}/strands`}>
          <ArrowLeft size={14} aria-hidden /> Strands
        </a>
        <h1 className="heading">Marked stick: {of.name}</h1>
        <Button strong onClick={() => print()}>
          <Printer size={14} aria-hidden /> Print
        </Button>
        <p className="label max-w-[560px]">
          Print at actual size, 100 %, on A4. Then lay a tape on the check ruler: it must measure
          100 mm. If it does not, the stick is wrong: set the printer’s scale and print again.
        </p>
      </div>
      {of.strands.length === 0 ? (
        <p className="p-6">No strand yet.</p>
      ) : (
        numbered(stickLeaves(of, plan))
      )}
    </main>
  );
}

/** A stick as leaves, at its true size. */
export function stickLeaves(of: Marked, plan: Plan): Leaf[] {
  const parts = stickParts(of.strands);
  return range(Math.ceil(parts.length / PARTS_PER_SHEET)).map((k) => ({
    key: `${of.name} ${k}`,
    of: of.name,
    draw: (mark) => (
      <StickSheet
        name={`${plan.name}, ${of.name}`}
        parts={parts.slice(k * PARTS_PER_SHEET, (k + 1) * PARTS_PER_SHEET)}
        first={k * PARTS_PER_SHEET}
        all={parts.length}
        mark={mark}
        invented={plan.invented ?? false}
      />
    ),
  }));
}

function wantedOf(plan: Plan): Marked | null {
  const asked = new URLSearchParams(location.search);
  const design = plan.designs?.[asked.get('design') ?? ''];
  if (design) return design;
  return plan.lines[asked.get('line') ?? ''] ?? null;
}
