/** Runs a TypeScript script: node scripts/ts.mjs FILE. Bundled to one file first, run from there. */
import { mkdtempSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

// Inside the project, so that the bundle finds node_modules.
const folder = mkdtempSync(join(resolve('node_modules'), '.run-'));
try {
  const outfile = join(folder, 'script.mjs');
  await build({
    entryPoints: [process.argv[2]],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'warning',
  });
  await import(pathToFileURL(outfile).href);
} finally {
  rmSync(folder, { recursive: true });
}
