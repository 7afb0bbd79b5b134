/** Starts the command line: what it prints where, and what the process ends with. */
import { faultWords, run, type Commands } from './run';

export async function start(commands: Commands): Promise<void> {
  // A reader that has seen enough (`| head`) is no fault.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error;
    process.exit();
  });
  const args = process.argv.slice(2);
  const problem = (text: string) => void process.stderr.write(text);
  // What fails outside any command, in a stream say, is told in the same way.
  process.on('uncaughtException', (error) => {
    problem(`jolly-fork: ${faultWords(args, error)}\n`);
    process.exit(3);
  });
  process.exitCode = await run(commands, args, {
    out: (text) => void process.stdout.write(text),
    problem,
  });
}
