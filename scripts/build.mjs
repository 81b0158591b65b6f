/** Builds the application and, after it, the command line (astro empties dist first). */
import { execFileSync } from 'node:child_process';
import { build } from 'esbuild';

process.env.ASTRO_TELEMETRY_DISABLED = '1';
process.env.ASTRO_DISABLE_UPDATE_CHECK = 'true';
execFileSync('node_modules/.bin/astro', ['build', '--silent'], { stdio: 'inherit' });
await build({
  entryPoints: ['src/cli/main.ts'],
  outfile: 'dist/cli/anabatic.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
