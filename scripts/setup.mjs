/** Makes ready what a command needs, and does nothing the second time. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const AT = {
  chromium: '/usr/bin/chromium',
  'gdal-bin': '/usr/bin/ogr2ogr',
  ngspice: '/usr/bin/ngspice',
  openssl: '/usr/bin/openssl',
  unzip: '/usr/bin/unzip',
};

const hash = (...parts) => {
  const sum = createHash('sha256');
  for (const part of parts) sum.update(part);
  return sum.digest('hex');
};
const stamped = (file, value) => existsSync(file) && readFileSync(file, 'utf8') === value;

/** Packages by the lock file: installed when it has changed since. */
export function install() {
  const stamp = 'node_modules/.anabatic-lock';
  const wanted = hash(readFileSync('package-lock.json'), process.version);
  if (stamped(stamp, wanted)) return;
  console.log('Installing packages (once; about two minutes on an empty cache) …');
  const env = { ...process.env };
  // SQLite may be compiled here; Debian keeps Node's headers under /usr.
  if (!env.npm_config_nodedir && existsSync('/usr/include/node')) env.npm_config_nodedir = '/usr';
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: 'inherit',
    env,
  });
  writeFileSync(stamp, wanted);
}

const files = (path) =>
  statSync(path).isDirectory()
    ? readdirSync(path)
        .sort()
        .flatMap((name) => files(join(path, name)))
    : [path];

/** The application and the command line: built when a source has changed since. */
export function build() {
  const stamp = 'dist/.anabatic-sources';
  const sources = [
    'src',
    'data',
    'public',
    'scripts/build.mjs',
    'astro.config.mjs',
    'tsconfig.json',
    'package-lock.json',
  ];
  const wanted = hash(...sources.flatMap(files).flatMap((f) => [f, readFileSync(f)]));
  if (stamped(stamp, wanted)) return;
  console.log('Building …');
  execFileSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
  writeFileSync(stamp, wanted);
}

/**
 * Packages of Debian by name, installed where that is allowed. Only the browser cannot be done without: the general
 * geographic library is something to hold our files against, and its tests say when it is missing.
 */
export function debian(...names) {
  const missing = names.filter((name) => !existsSync(AT[name]));
  if (!missing.length) return;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    if (!missing.includes('chromium')) return;
    throw new Error(`The browser tests need ${AT.chromium}: install Debian's package "chromium".`);
  }
  console.log(`Installing ${missing.join(' and ')} from Debian …`);
  const options = { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  execFileSync('apt-get', ['update', '-qq'], options);
  execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], options);
}

// Run by itself it builds, for what is to go on beside that.
if (process.argv[1] === import.meta.filename) build();
