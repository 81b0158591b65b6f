/** What `serve` and `demo` may be told, and what is asked before others are let in. */
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Option, type Command } from 'commander';
import { FormatError } from '../formats/error.js';
import { peopleStore } from '../server/access/people.js';
import { isLoopback, serve as startServer } from '../server/serve.js';
import { root, withStore, type Io } from './io.js';

export interface ServeFlags {
  readonly db: string;
  readonly port: string;
  readonly host: string;
  readonly name?: readonly string[];
  readonly cert?: string;
  readonly key?: string;
  readonly behind?: string;
  readonly log?: string;
}

/** Gives a command the flags of serving, but the store's. */
export const served = (command: Command): Command =>
  command
    .addOption(new Option('--port <number>', 'port to serve on').default('4321').env('PORT'))
    .addOption(
      new Option('--host <address>', 'address to serve on').default('127.0.0.1').env('HOST'),
    )
    .option('--name <name...>', 'further names or addresses under which it may be asked for')
    .option('--cert <file>', 'certificate, with --key: serve HTTPS')
    .option('--key <file>', 'key of the certificate')
    .option('--behind <address>', 'address by which a proxy lets others reach it: https://…')
    .option('--log <file>', 'write the log there, a new file each day; the newest 14 are kept');

/**
 * Serves the application until it is asked to stop.
 * @param path of the page whose address is said
 * @throws FormatError for flags that do not go together, or when others could come in unasked
 */
export async function serve(io: Io, o: ServeFlags, path = '/'): Promise<void> {
  const port = Number(o.port);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new FormatError('--port', 'is a number from 0 to 65535');
  if ((o.cert === undefined) !== (o.key === undefined))
    throw new FormatError(o.cert === undefined ? '--cert' : '--key', 'goes with the other');
  if (o.behind !== undefined && !/^https?:\/\/[^/\s]+$/.test(o.behind))
    throw new FormatError('--behind', 'is an address without a path, as https://farm.example');
  if (!isLoopback(o.host) || o.behind !== undefined) await letIn(o);
  process.env['ANABATIC_DB'] = resolve(o.db);
  process.env['ANABATIC_JOBS'] = join(root, 'dist', 'jobs', 'worker.mjs');
  process.env['ANABATIC_FIRST'] = join(root, 'dist', 'first.json');
  const dist = join(root, 'dist');
  if (!existsSync(join(dist, 'server', 'entry.mjs')))
    throw new FormatError('', 'not built yet: run "npm run build" first');
  const tls = o.cert === undefined ? undefined : { cert: o.cert, key: o.key! };
  const { name: names = [], behind, log: logFile } = o;
  await startServer({ port, host: o.host, dist, names, tls, behind, logFile });
  io.out(`Anabatic is at ${behind ?? `http${tls ? 's' : ''}://${o.host}:${port}`}${path}`);
}

/** Whether others may be let in: somebody must have a pass phrase, and nobody may be able to read it on the way. */
async function letIn(o: ServeFlags): Promise<void> {
  if (o.cert === undefined && o.behind === undefined)
    throw new FormatError(
      '--host',
      `${o.host} can be reached from other machines, and without HTTPS all that is said can be read on the way, pass phrases too: give --cert and --key, or --behind the address of a proxy that speaks HTTPS`,
    );
  if (await withStore(o.db, (db) => peopleStore(db).any())) return;
  throw new FormatError(
    '--host',
    'others could reach this server, and nobody has a pass phrase yet: "anabatic people add NAME" makes the first owner',
  );
}
