/** Builds the application and, after it, the command line (astro empties dist first). */
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { build } from 'esbuild';

process.env.ASTRO_TELEMETRY_DISABLED = '1';
process.env.ASTRO_DISABLE_UPDATE_CHECK = 'true';
execFileSync('node_modules/.bin/astro', ['build', '--silent'], { stdio: 'inherit' });
for (const [from, to] of [
  ['src/cli/main.ts', 'dist/cli/anabatic.mjs'],
  ['src/server/jobs/worker.ts', 'dist/jobs/worker.mjs'],
]) {
  await build({
    entryPoints: [from],
    outfile: to,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'warning',
  });
}

// Static files are compressed once, here, and sent as they lie.
const texts = readdirSync('dist/client', { recursive: true })
  .map((name) => join('dist/client', name))
  .filter((file) => /\.(js|css|svg|html|json)$/.test(file) && statSync(file).isFile());
for (const file of texts) {
  const body = readFileSync(file);
  if (body.length < 1024) continue;
  const params = { [constants.BROTLI_PARAM_QUALITY]: 11 };
  writeFileSync(`${file}.br`, brotliCompressSync(body, { params }));
  writeFileSync(`${file}.gz`, gzipSync(body));
}
