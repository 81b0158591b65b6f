/** The guard at every door: JSON Schema by Ajv, with one clear line for what is wrong. */
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { FormatError } from './error.js';

// Defaults are filled in for calculators; types are never guessed. Schemas are kept by identity below
// and refer to none by id, so that two of one id (of other lists of parts) do not meet.
const ajv = new Ajv({
  allErrors: false,
  useDefaults: true,
  strict: true,
  strictTuples: false,
  addUsedSchema: false,
});
const compiled = new WeakMap<object, ValidateFunction>();

/**
 * Checks a value against a schema and gives it back typed; defaults of the schema are put in.
 * @throws FormatError naming the place and the reason
 */
export function validate<T>(schema: object, value: unknown, root = ''): T {
  const check = checkOf(schema);
  if (check(value)) return value as T;
  throw explain(check.errors!, root);
}

function checkOf(schema: object): ValidateFunction {
  let check = compiled.get(schema);
  if (!check) compiled.set(schema, (check = ajv.compile(schema)));
  return check;
}

/** Compiles schemas beforehand, where the first value should not wait for it. */
export const prepare = (...schemas: readonly object[]): void => schemas.forEach(checkOf);

/** True when a value fits a schema. */
export const fits = (schema: object, value: unknown): boolean => {
  try {
    validate(schema, value);
    return true;
  } catch {
    return false;
  }
};

function explain(errors: readonly ErrorObject[], root: string): FormatError {
  // Of a failed choice the last error is the choice itself; the first inner one says more.
  const e = errors[0]!;
  const place = `${root}${e.instancePath}` || '/';
  switch (e.keyword) {
    case 'additionalProperties':
      return new FormatError(
        place,
        `knows no "${(e.params as { additionalProperty: string }).additionalProperty}"`,
      );
    case 'required':
      return new FormatError(
        place,
        `lacks "${(e.params as { missingProperty: string }).missingProperty}"`,
      );
    case 'const':
      return new FormatError(
        place,
        `must be ${JSON.stringify((e.params as { allowedValue: unknown }).allowedValue)}`,
      );
    default:
      return new FormatError(place, e.message ?? 'is not right');
  }
}
