/** The commands that say who may come in. */
import { Option, type Command } from 'commander';
import { FormatError } from '../formats/error.js';
import { ROLES } from '../formats/visitor.js';
import { peopleStore, type PeopleStore } from '../server/access/people.js';
import { database, withStore, type Io } from './io.js';

interface Flags {
  readonly db: string;
}

const withPeople = (o: Flags, run: (of: PeopleStore) => Promise<void>) =>
  withStore(o.db, (db) => run(peopleStore(db)));

async function named(of: PeopleStore, name: string) {
  const found = (await of.list()).find((p) => p.name === name);
  if (!found) throw new FormatError(name, 'nobody is called that here');
  return found;
}

/** Adds `people list`, `add`, `phrase` and `remove`. */
export function peopleCommands(program: Command, io: Io): void {
  const people = program
    .command('people')
    .description('who may come in: list, add, phrase, remove');
  /** The phrase is asked for on standard input: what stands in a command is kept by the shell. */
  const phrase = () => {
    io.err('Pass phrase (end with Enter and Ctrl+D):');
    return io.stdin().split(/\r?\n/)[0]!;
  };
  people
    .command('list')
    .addOption(database())
    .action((o: Flags) =>
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
    )
    .addOption(database())
    .action((name: string, o: Flags & { role: string }) =>
      withPeople(o, async (of) => {
        const made = await of.add({ name, role: o.role, phrase: phrase() });
        io.out(`${made.name}: ${made.role}`);
      }),
    );
  people
    .command('phrase')
    .description(
      'give somebody a new pass phrase, read from standard input; it signs them out everywhere',
    )
    .argument('<name>')
    .addOption(database())
    .action((name: string, o: Flags) =>
      withPeople(o, async (of) => {
        await of.change((await named(of, name)).id, { phrase: phrase() });
        io.out(`${name}: new pass phrase`);
      }),
    );
  people
    .command('remove')
    .description('shut somebody out')
    .argument('<name>')
    .addOption(database())
    .action((name: string, o: Flags) =>
      withPeople(o, async (of) => {
        await of.remove((await named(of, name)).id);
        io.out(`${name}: shut out`);
      }),
    );
}
