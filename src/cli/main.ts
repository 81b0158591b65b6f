/** The command line: serve, demo, evaluate, compare, calc, import, export, schema. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { Command, Option } from 'commander';
import { catalogue, SEASONS } from '../core/plan/catalogue.js';
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
import { openDatabase } from '../server/database.js';
import { exportAs, FORMATS } from '../server/exports.js';
import { planStore } from '../server/store.js';
import { summary } from './summary.js';

// dist/cli/anabatic.mjs stands two folders below the project.
const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
const DEMO_ID = 'hollin-scar';

const program = new Command('anabatic').description(
  'Plans permanent high-tensile electric fences.',
);

const database = () =>
  new Option('--db <file>', 'the SQLite file').default(join(root, 'var', 'anabatic.sqlite'));
const port = () => new Option('--port <number>', 'port to serve on').default('4321').env('PORT');

async function serve(db: string, at: string, path = '/'): Promise<void> {
  process.env['ANABATIC_DB'] = resolve(db);
  process.env['PORT'] = at;
  process.env['HOST'] ??= '127.0.0.1';
  const entry = join(root, 'dist', 'server', 'entry.mjs');
  if (!existsSync(entry)) throw new FormatError('', 'not built yet: run "npm run build" first');
  await import(pathToFileURL(entry).href);
  console.log(`Anabatic is at http://${process.env['HOST']}:${at}${path}`);
}

program
  .command('serve')
  .description('serve the application')
  .addOption(database())
  .addOption(port())
  .action((o: { db: string; port: string }) => serve(o.db, o.port));

program
  .command('demo')
  .description('load the invented demo property and serve it')
  .addOption(database().default(join(root, 'var', 'demo.sqlite')))
  .addOption(port())
  .action(async (o: { db: string; port: string }) => {
    const db = await openDatabase(o.db);
    const plans = planStore(db);
    if (!(await plans.head(DEMO_ID))) {
      await plans.create(
        parsePlan(readFileSync(join(root, 'demo', 'hollin-scar.plan.json'), 'utf8')),
        DEMO_ID,
      );
    }
    await db.destroy();
    await serve(o.db, o.port, `/p/${DEMO_ID}/land`);
  });

program
  .command('evaluate')
  .description('work a plan file out and print its report')
  .argument('<plan>', 'plan file, or - for standard input')
  .addOption(new Option('--season <season>', 'only this season').choices([...SEASONS]))
  .option('--json', 'print the whole report as JSON')
  .action((file: string, o: { season?: string; json?: boolean }) => {
    const { plan, grids } = parsePlan(read(file));
    const report = evaluate(plan, groundOf(plan, grids), catalogue);
    if (o.season) {
      for (const e of Object.values(report.energisers)) {
        e.seasons = { [o.season]: e.seasons[o.season]! };
      }
    }
    validate(ReportSchema, report);
    console.log(o.json ? JSON.stringify(report) : summary(report, plan.units, catalogue));
  });

program
  .command('compare')
  .description('what can be put on one line: orders of duties, posts against strands, other fences')
  .argument('<plan>', 'plan file, or - for standard input')
  .argument('<line>', 'id of the line')
  .action((file: string, line: string) => {
    const { plan, grids } = parsePlan(read(file));
    const ground = groundOf(plan, grids);
    const found = createChoices()(line, plan, ground, createPipeline()(plan, ground, catalogue));
    if (!found) throw new FormatError(line, 'the plan has no such line');
    console.log(JSON.stringify(found));
  });

program
  .command('calc')
  .description('one calculator: { "kind", "inputs" } in, { "kind", "outputs" } out')
  .argument('[case]', 'case file; standard input without it', '-')
  .action((file: string) => console.log(JSON.stringify(runCase(parseJson(read(file))))));

program
  .command('import')
  .description('take a plan file into the store as a new property')
  .argument('<plan>', 'plan file, or - for standard input')
  .addOption(database())
  .action(async (file: string, o: { db: string }) => {
    const opened = parsePlan(read(file));
    const db = await openDatabase(o.db);
    try {
      console.log(await planStore(db).create(opened));
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
    const opened = existsSync(what) ? parsePlan(read(what)) : await fromStore(what, o.db);
    const { text } = exportAs(o.format, opened);
    if (o.out) writeFileSync(o.out, text);
    else process.stdout.write(`${text}\n`);
  });

program
  .command('schema')
  .description('print a JSON Schema')
  .addArgument(program.createArgument('<name>', 'plan or report').choices(['plan', 'report']))
  .action((name: string) =>
    console.log(JSON.stringify(name === 'plan' ? PlanSchema : ReportSchema, null, 2)),
  );

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

function read(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new FormatError(
      file === '-' ? 'standard input' : basename(file),
      (error as Error).message,
    );
  }
}

program.exitOverride();
try {
  await program.parseAsync();
} catch (error) {
  const e = error as { code?: string; exitCode?: number };
  if (e.code?.startsWith('commander.')) {
    process.exitCode = e.exitCode === 0 ? 0 : 2;
  } else if (error instanceof FormatError || error instanceof RangeError) {
    console.error(`anabatic: ${error.message}`.replaceAll('\n', ' '));
    process.exitCode = 2;
  } else {
    console.error(error);
    process.exitCode = 1;
  }
}
