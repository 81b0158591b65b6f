/** Runs one calculator behind its door; used by the endpoint and the command line. */
import { Type } from '../core/base/type.js';
import { calculators } from '../core/calc.js';
import { FormatError } from '../formats/error.js';
import { validate } from '../formats/validate.js';

const CaseSchema = Type.Object({ kind: Type.String(), inputs: Type.Object({}) });

/**
 * Answers `{ kind, inputs }` with `{ kind, outputs }`.
 * @throws FormatError naming the place, for an unknown kind or inputs that do not fit
 */
export function runCase(value: unknown): { kind: string; outputs: object } {
  const { kind, inputs } = validate<{ kind: string; inputs: object }>(CaseSchema, value);
  if (!Object.hasOwn(calculators, kind)) {
    throw new FormatError(
      '/kind',
      `no calculator "${kind}"; there are ${Object.keys(calculators).join(', ')}`,
    );
  }
  const calculator = calculators[kind]!;
  const checked = validate<never>(calculator.inputs, structuredClone(inputs), '/inputs');
  try {
    return { kind, outputs: calculator.run(checked) };
  } catch (error) {
    if (error instanceof RangeError) throw new FormatError('/inputs', error.message);
    throw error;
  }
}
