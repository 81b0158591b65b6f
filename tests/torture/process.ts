/** The built server as a process of its own, to be killed and started again. */
import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';

export interface Running {
  readonly child: ChildProcess;
  readonly base: string;
  /** Ends it without a word, as a power cut would. */
  kill(): Promise<void>;
}

/** Starts a server on a store and waits until it answers. */
export async function startServer(
  db: string,
  port: number,
  flags: readonly string[] = [],
): Promise<Running> {
  const child = spawn(
    process.execPath,
    ['bin/anabatic', 'serve', '--db', db, '--port', String(port), ...flags],
    { stdio: 'ignore', env: { ...process.env, ANABATIC_LOG: 'silent' } },
  );
  const base = `http://127.0.0.1:${port}`;
  const died = new Promise<void>((done) => child.once('exit', () => done()));
  for (let k = 0; k < 600; k++) {
    // On a disk that cannot be written it answers too, and says so.
    const up = await fetch(`${base}/api/health`).then(() => true, () => false); // prettier-ignore
    if (up)
      return {
        child,
        base,
        kill: () => {
          child.kill('SIGKILL');
          return died;
        },
      };
    if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode}`);
    await new Promise((wake) => setTimeout(wake, 50));
  }
  child.kill('SIGKILL');
  throw new Error('the server did not answer within 30 s');
}

/** Resident memory of a process, MB; 0 where the system does not tell. */
export function residentMegabytes(pid: number): number {
  try {
    return (Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * 4096) / 1048576;
  } catch {
    return 0;
  }
}
