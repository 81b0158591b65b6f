/** The command line: serve, demo, evaluate, compare, netlist, calc, import, export, backup, restore, people, schema. */
import { createWriteStream, existsSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'; // prettier-ignore
import { basename, dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import { Command, Option } from 'commander';
import { catalogue, SEASONS, type SeasonId } from '../core/plan/catalogue.js';
import type { Plan } from '../core/plan/schema.js';
import type { Network } from '../core/power/wired.js';
import type { Ground } from '../core/terrain/ground.js';
import { resistiveDeck, transientDeck } from '../formats/netlist.js';
import { PlanSchema } from '../core/plan/schema.js';
import { ReportSchema } from '../core/report/schema.js';
import { createChoices } from '../core/choices.js';
import { evaluate } from '../core/evaluate.js';
import { createPipeline } from '../core/pipeline.js';
import { groundOf } from '../core/terrain/ground.js';
import { FormatError, parseJson } from '../formats/error.js';
import { parsePlan } from '../formats/planFile.js';
import { validate } from '../formats/validate.js';
import { runCase } from '../server/calc.js';
import { peopleStore, type PeopleStore } from '../server/access/people.js';
import { ROLES } from '../formats/visitor.js';
import { zipped } from '../server/backup/bundle.js';
import { restored } from '../server/backup/restore.js';
import { taken } from '../server/backup/take.js';
import { openDatabase, StoreError } from '../server/database.js';
import { exportAs, FORMATS } from '../server/exports.js';
import { isLoopback, serve as startServer } from '../server/serve.js';
import { putDemoLog, type DemoLog } from '../server/demoLog.js';
import { recordStore } from '../server/records/store.js';
import { planStore } from '../server/store.js';
import { summary } from './summary.js';

// dist/cli/anabatic.mjs stands two folders below the project.
const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
const DEMO_ID = 'hollin-scar';

/** What a command reads and says; another than the terminal's in tests. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
  /** Standard input, whole. */
  stdin(): string;
}

const database = () =>
  new Option('--db <file>', 'the SQLite file').default(join(root, 'var', 'anabatic.sqlite'));
const host = () =>
  new Option('--host <address>', 'address to serve on').default('127.0.0.1').env('HOST');
const port = () => new Option('--port <number>', 'port to serve on').default('4321').env('PORT');

interface ServeFlags {
  readonly db: string;
  readonly port: string;
  readonly host: string;
  readonly name?: readonly string[];
  readonly cert?: string;
  readonly key?: string;
  readonly behind?: string;
  readonly log?: string;
}

/** What both ways of serving may be told. */
const served = (command: Command): Command =>
  command
    .addOption(port())
    .addOption(host())
    .option('--name <name...>', 'further names or addresses under which it may be asked for')
    .option('--cert <file>', 'certificate, with --key: serve HTTPS')
    .option('--key <file>', 'key of the certificate')
    .option('--behind <address>', 'address by which a proxy lets others reach it: https://…')
    .option('--log <file>', 'write the log there, a new file each day; the newest 14 are kept');

async function serve(io: Io, o: ServeFlags, path = '/'): Promise<void> {
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
  const db = await openDatabase(o.db);
  try {
    if (await peopleStore(db).any()) return;
  } finally {
    await db.destroy();
  }
  throw new FormatError(
    '--host',
    'others could reach this server, and nobody has a pass phrase yet: "anabatic people add NAME" makes the first owner',
  );
}

/**
 * Runs one command.
 * @param args the words after the program's name
 * @returns its exit code: 2 with one line for what is wrong with the call or its input
 */
export async function run(args: readonly string[], io: Io): Promise<number> {
  const program = commands(io)
    .exitOverride()
    .configureOutput({
      writeOut: (t) => io.out(t.trimEnd()),
      writeErr: (t) => io.err(t.trimEnd()),
    });
  for (const command of program.commands) command.copyInheritedSettings(program);
  try {
    await program.parseAsync([...args], { from: 'user' });
    return 0;
  } catch (error) {
    const e = error as { code?: string; exitCode?: number };
    if (e.code?.startsWith('commander.')) return e.exitCode === 0 ? 0 : 2;
    if (
      error instanceof FormatError ||
      error instanceof RangeError ||
      error instanceof StoreError
    ) {
      io.err(`anabatic: ${error.message}`.replaceAll('\n', ' '));
      return 2;
    }
    io.err((error as Error).stack ?? String(error));
    return 1;
  }
}

function commands(io: Io): Command {
  const program = new Command('anabatic').description(
    'Plans permanent high-tensile electric fences.',
  );

  served(program.command('serve'))
    .description('serve the application')
    .addOption(database())
    .action((o: ServeFlags) => serve(io, o));

  served(program.command('demo'))
    .description('load the invented demo property and serve it')
    .addOption(database().default(join(root, 'var', 'demo.sqlite')))
    .action(async (o: ServeFlags) => {
      const db = await openDatabase(o.db);
      const plans = planStore(db);
      if (!(await plans.head(DEMO_ID))) {
        const demo = (name: string) => readFileSync(join(root, 'demo', name), 'utf8');
        await plans.create(parsePlan(demo('hollin-scar.plan.json')), DEMO_ID);
        await putDemoLog(recordStore(db), DEMO_ID, JSON.parse(demo('hollin-scar.log.json')) as DemoLog); // prettier-ignore
      }
      await db.destroy();
      await serve(io, o, `/p/${DEMO_ID}/land`);
    });

  program
    .command('evaluate')
    .description('work a plan file out and print its report')
    .argument('<plan>', 'plan file, or - for standard input')
    .addOption(new Option('--season <season>', 'only this season').choices([...SEASONS]))
    .option('--json', 'print the whole report as JSON')
    .action((file: string, o: { season?: string; json?: boolean }) => {
      const { plan, grids } = parsePlan(read(io, file));
      const report = evaluate(plan, groundOf(plan, grids), catalogue);
      if (o.season) {
        for (const e of Object.values(report.energisers)) {
          e.seasons = { [o.season]: e.seasons[o.season]! };
        }
      }
      validate(ReportSchema, report);
      io.out(o.json ? JSON.stringify(report) : summary(report, plan.units, catalogue));
    });

  program
    .command('compare')
    .description(
      'what can be put on one line: orders of duties, posts against strands, other fences',
    )
    .argument('<plan>', 'plan file, or - for standard input')
    .argument('<line>', 'id of the line')
    .action((file: string, line: string) => {
      const { plan, grids } = parsePlan(read(io, file));
      const ground = groundOf(plan, grids);
      const found = createChoices()(line, plan, ground, createPipeline()(plan, ground, catalogue));
      if (!found) throw new FormatError(line, 'the plan has no such line');
      io.out(JSON.stringify(found));
    });

  program
    .command('netlist')
    .description(
      'a deck of the electrical network for a general circuit simulator, which prints every node',
    )
    .argument('<plan>', 'plan file, or - for standard input')
    .addOption(new Option('--season <season>').choices([...SEASONS]).default('wet'))
    .option('--energiser <id>', 'where there are several')
    .option(
      '--transient',
      'the pulse on tied strands; without it, the resistive network strand by strand',
    )
    .action((file: string, o: { season: SeasonId; energiser?: string; transient?: boolean }) => {
      const { plan, grids } = parsePlan(read(io, file));
      const net = networkOf(plan, groundOf(plan, grids), o.energiser);
      const names = Object.fromEntries(
        [...Object.values(plan.lines), ...Object.values(plan.energisers)].map((x) => [
          x.id,
          x.name,
        ]),
      );
      io.out((o.transient ? transientDeck : resistiveDeck)(net, o.season, names));
    });

  program
    .command('calc')
    .description('one calculator: { "kind", "inputs" } in, { "kind", "outputs" } out')
    .argument('[case]', 'case file; standard input without it', '-')
    .action((file: string) => io.out(JSON.stringify(runCase(parseJson(read(io, file))))));

  program
    .command('import')
    .description('take a plan file into the store as a new property')
    .argument('<plan>', 'plan file, or - for standard input')
    .addOption(database())
    .action(async (file: string, o: { db: string }) => {
      const opened = parsePlan(read(io, file));
      const db = await openDatabase(o.db);
      try {
        io.out(await planStore(db).create(opened));
      } finally {
        await db.destroy();
      }
    });

  program
    .command('export')
    .description('write a property of the store, or a plan file, in another format')
    .argument('<property>', 'property id, or a plan file')
    .addOption(new Option('--format <format>').choices(Object.keys(FORMATS)).default('plan'))
    .option('--out <file>', 'file to write; standard output without it')
    .addOption(database())
    .action(async (what: string, o: { format: string; out?: string; db: string }) => {
      const opened = existsSync(what) ? parsePlan(read(io, what)) : await fromStore(what, o.db);
      const { text } = exportAs(o.format, opened);
      if (o.out) writeFileSync(o.out, text);
      else io.out(text);
    });

  program
    .command('backup')
    .description('write the properties of the store, with history, log and photos, into one zip')
    .argument('<file>', 'zip file to write')
    .option('--property <id>', 'only this one')
    .addOption(database())
    .action(async (file: string, o: { property?: string; db: string }) => {
      await (await openDatabase(o.db)).destroy();
      const half = `${file}.part`;
      // It gets its name when it is whole.
      await pipeline(zipped(taken(o.db, o.property === undefined ? undefined : [o.property])), createWriteStream(half)); // prettier-ignore
      renameSync(half, file);
      io.out(`${file}: ${Math.ceil(statSync(file).size / 1024)} kB`);
    });

  program
    .command('restore')
    .description('bring the properties of a backup back into the store')
    .argument('<file>', 'zip file of a backup')
    .addOption(database())
    .action(async (file: string, o: { db: string }) => {
      const zip = readBytes(file);
      const db = await openDatabase(o.db);
      try {
        for (const { name, id, as } of await restored(db, o.db, zip))
          io.out(`${name} (${id}): ${as === 'new' ? 'brought back' : as === 'copy' ? 'brought back beside the one that stands there' : 'stands there already, equal in every part'}`); // prettier-ignore
      } finally {
        await db.destroy();
      }
    });

  const people = program
    .command('people')
    .description('who may come in: list, add, phrase, remove');
  const withPeople = async (o: { db: string }, run: (of: PeopleStore) => Promise<void>) => {
    const db = await openDatabase(o.db);
    try {
      await run(peopleStore(db));
    } finally {
      await db.destroy();
    }
  };
  /** The phrase is asked for on standard input: what stands in a command is kept by the shell. */
  const phrase = () => {
    io.err('Pass phrase (end with Enter and Ctrl+D):');
    return io.stdin().split(/\r?\n/)[0]!;
  };
  const named = async (of: PeopleStore, name: string) => {
    const found = (await of.list()).find((p) => p.name === name);
    if (!found) throw new FormatError(name, 'nobody is called that here');
    return found;
  };
  people
    .command('list')
    .addOption(database())
    .action((o: { db: string }) =>
      withPeople(o, async (of) => {
        for (const { name, role } of await of.list()) io.out(`${name}\t${role}`);
      }),
    );
  people
    .command('add')
    .description('let somebody in; the pass phrase is read from standard input')
    .argument('<name>')
    .addOption(
      new Option('--role <role>', 'the first one is an owner').choices([...ROLES]).default('crew'),
    ) // prettier-ignore
    .addOption(database())
    .action((name: string, o: { db: string; role: string }) =>
      withPeople(o, async (of) => {
        const made = await of.add({ name, role: o.role, phrase: phrase() });
        io.out(`${made.name}: ${made.role}`);
      }),
    );
  people
    .command('phrase')
    .description('give somebody a new pass phrase, read from standard input; it signs them out everywhere')
    .argument('<name>')
    .addOption(database())
    .action((name: string, o: { db: string }) =>
      withPeople(o, async (of) => {
        await of.change((await named(of, name)).id, { phrase: phrase() });
        io.out(`${name}: new pass phrase`);
      }),
    ); // prettier-ignore
  people
    .command('remove')
    .description('shut somebody out')
    .argument('<name>')
    .addOption(database())
    .action((name: string, o: { db: string }) =>
      withPeople(o, async (of) => {
        await of.remove((await named(of, name)).id);
        io.out(`${name}: shut out`);
      }),
    );

  program
    .command('schema')
    .description('print a JSON Schema')
    .addArgument(program.createArgument('<name>', 'plan or report').choices(['plan', 'report']))
    .action((name: string) =>
      io.out(JSON.stringify(name === 'plan' ? PlanSchema : ReportSchema, null, 2)),
    );
  return program;
}

async function fromStore(id: string, file: string) {
  const db = await openDatabase(file);
  try {
    const opened = await planStore(db).withGround(id);
    if (!opened) throw new FormatError(id, 'no such property in the store, and no such file');
    return opened;
  } finally {
    await db.destroy();
  }
}

function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch (error) {
    throw new FormatError(basename(file), (error as Error).message);
  }
}

function read(io: Io, file: string): string {
  try {
    return file === '-' ? io.stdin() : readFileSync(file, 'utf8');
  } catch (error) {
    throw new FormatError(
      file === '-' ? 'standard input' : basename(file),
      (error as Error).message,
    );
  }
}

/** The network of an energiser. @throws FormatError when there is none, or none so called */
function networkOf(plan: Plan, ground: Ground, id = Object.keys(plan.energisers)[0]): Network {
  const energiser = id === undefined ? undefined : plan.energisers[id];
  if (!energiser) throw new FormatError('energiser', id === undefined ? 'the plan has none' : `the plan has no "${id}"`); // prettier-ignore
  const { whole, cat } = createPipeline()(plan, ground, catalogue);
  const { wired, topology, groups } = whole.power;
  const ids = groups.find((g) => g.energisers.includes(energiser))?.lines ?? [];
  return { energiser, ids, wired, topology, plan, cat };
}
