/** A file or message that cannot be taken: the place in it and the reason, in plain words. */
export class FormatError extends Error {
  /**
   * @param place line number, JSON Pointer or column that the fault stands at
   */
  constructor(
    readonly place: string,
    readonly reason: string,
  ) {
    super(place ? `${place}: ${reason}` : reason);
    this.name = 'FormatError';
  }
}

/** JSON text to a value. @throws FormatError with the parser's own place */
export function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new FormatError('', `not JSON: ${(error as Error).message}`);
  }
}
