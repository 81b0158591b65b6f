/** The command line: serve, demo, evaluate, compare, netlist, calc, import, export, backup, restore, people, schema. */
import { createWriteStream, existsSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'; // prettier-ignore
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Command, Option } from 'commander';
import { SEASONS, type SeasonId } from '../core/plan/catalogue.js';
import { catalogue } from '../core/plan/shipped.js';
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
import { zipped } from '../server/backup/bundle.js';
import { restored } from '../server/backup/restore.js';
import { taken } from '../server/backup/take.js';
import { openDatabase, StoreError } from '../server/database.js';
import { exportAs, FORMATS } from '../server/exports.js';
import { putDemoLog, type DemoLog } from '../server/demoLog.js';
import { recordStore } from '../server/records/store.js';
import { planStore } from '../server/plans/store.js';
import { database, read, readBytes, root, withStore, type Io } from './io.js';
import { peopleCommands } from './people.js';
import { serve, served, type ServeFlags } from './serving.js';
import { summary } from './summary.js';

export type { Io } from './io.js';

const DEMO_ID = 'hollin-scar';

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
      await withStore(o.db, async (db) => {
        const plans = planStore(db);
        if (await plans.head(DEMO_ID)) return;
        const demo = (name: string) => readFileSync(join(root, 'demo', name), 'utf8');
        await plans.create(parsePlan(demo('hollin-scar.plan.json')), DEMO_ID);
        await putDemoLog(recordStore(db), DEMO_ID, JSON.parse(demo('hollin-scar.log.json')) as DemoLog); // prettier-ignore
      });
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
      io.out(await withStore(o.db, (db) => planStore(db).create(opened)));
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
      for (const { name, id, as } of await withStore(o.db, (db) => restored(db, o.db, zip)))
        io.out(`${name} (${id}): ${as === 'new' ? 'brought back' : as === 'copy' ? 'brought back beside the one that stands there' : 'stands there already, equal in every part'}`); // prettier-ignore
    });

  peopleCommands(program, io);

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
  const opened = await withStore(file, (db) => planStore(db).withGround(id));
  if (!opened) throw new FormatError(id, 'no such property in the store, and no such file');
  return opened;
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
