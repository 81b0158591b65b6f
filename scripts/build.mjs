/** Builds the application and, after it, the command line (astro empties dist first). */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
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

// What a first visit wants, in the order in which it wants it: the page's modules, then those of the worker of figures.
const assets = readdirSync('dist/client/_astro').filter((name) => name.endsWith('.js'));
const module = (name) => assets.find((file) => file.startsWith(name));
const textOf = (file) => readFileSync(join('dist/client/_astro', file), 'utf8');
function withImports(...files) {
  const all = new Set(files);
  // A set is walked to its end, and what is put in on the way is its end.
  for (const file of all)
    for (const [, next] of textOf(file).matchAll(/(?:from|import)"\.\/([^"]+\.js)"/g))
      all.add(next);
  return [...all].map((file) => `/_astro/${file}`);
}
const worker = module('worker-');
const [, figures] = /import\("\.\/(evaluate-[^"]+)"\)/.exec(textOf(worker));
writeFileSync(
  'dist/first.json',
  JSON.stringify({
    page: withImports(module('Workbench.'), module('client.')),
    worker: withImports(worker, figures),
  }),
);

// The service worker, last: it names what was built by the hash of its content, and the page that stands in for all others
// by the hash of all of that, since it is made by the server.
const hash = (...of) =>
  of
    .reduce((sum, part) => sum.update(part), createHash('sha256'))
    .digest('hex')
    .slice(0, 16);
/** Charts, the guide to a new property, other coordinates, papers, reasons: kept when they were looked at, or after all else. */
const SELDOM = new RegExp(
  `^_astro/(${[
    ...['charts', 'projection', 'Guide', 'calendarFile', 'csv', 'reasons', 'People', 'SignIn'],
    ...['CoilCards', 'EndCards', 'StrainCards', 'HandCards', 'WiringSheets', 'OrderSheet'],
    ...['PackView', 'PrintView', 'SetOutView', 'StickView', 'DayPages'],
  ].join('|')})\\.|^icon-`,
);
const built = ['_astro', '.']
  .flatMap((folder) => readdirSync(join('dist/client', folder)).map((name) => join(folder, name)))
  .filter((name) => /\.(js|css|woff2|svg|webmanifest)$|^icon.*\.png$/.test(name))
  .sort()
  .map((name) => {
    const revision = hash(readFileSync(join('dist/client', name)));
    // Names of built files hold their hash already.
    return {
      url: `/${name}`,
      revision: name.startsWith('_astro') ? null : revision,
      own: revision,
      seldom: SELDOM.test(name),
    };
  });
const entries = [
  {
    url: '/away',
    revision: hash(...built.map((b) => b.own), readFileSync('src/pages/away.astro')),
  },
  ...built.filter(({ seldom }) => !seldom).map(({ url, revision }) => ({ url, revision })),
];
await build({
  entryPoints: ['src/workers/away.sw.ts'],
  outfile: 'dist/client/sw.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: {
    BUILT: JSON.stringify(entries),
    SELDOM: JSON.stringify(built.filter((b) => b.seldom && b.revision === null).map((b) => b.url)),
    'process.env.NODE_ENV': '"production"',
  },
  logLevel: 'warning',
});

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
