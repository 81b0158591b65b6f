/** What a first visit wants of the program, told in the head of the page, so that nothing waits to be found by what was fetched before it. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';

export interface First {
  /** Addresses of the modules of the page, and of the worker of figures. */
  readonly page: readonly string[];
  readonly worker: readonly string[];
}

let known: First | null = null;

/** As the build found it (scripts/build.mjs); nothing while the program runs unbuilt. */
export function first(): First {
  if (!known) {
    try {
      known = JSON.parse(
        readFileSync(resolve(process.env['ANABATIC_FIRST'] ?? 'dist/first.json'), 'utf8'),
      ) as First;
    } catch {
      known = { page: [], worker: [] };
    }
  }
  return known;
}
