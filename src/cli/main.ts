/** The command line at the terminal. */
import { readFileSync } from 'node:fs';
import { run } from './cli.js';

process.exitCode = await run(process.argv.slice(2), {
  out: (text) => console.log(text),
  err: (text) => console.error(text),
  stdin: () => readFileSync(0, 'utf8'),
});
