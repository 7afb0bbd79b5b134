/** The command line: picks the command, turns misuse into one line on standard error and exit code 2. */
import { analyseCommand } from './analyse';
import { auditCommand } from './audit';
import { check } from './check';
import { Misuse } from './files';
import { routesCommand } from './routes';
import { simulateCommand } from './simulate';
import { walkCommand } from './walk';

const USAGE = `Usage: jolly-fork COMMAND FILE [options]

  check FILE                                       what is wrong, with the place and the mend
  analyse FILE [--pairs]                           routes, endings, who is asked what, and few routes
                                                   that take every fork (or every two forks together)
  routes FILE [--from K] [--limit N]               routes in order, each with a respondent who takes it;
         [--through NAME] [--avoid NAME]           K counts within what the filters leave
         [--ending ID] [--taking WAYS]             WAYS: NAME:N, the N-th skip of an item (or onward of
                                                   a section), or a quota's id; several with commas
  walk FILE --answers FILE.json [--seed S]         walk one respondent, with the coded row
  simulate FILE -n N --out ROWS.csv [--seed S]     coded data of made-up respondents
  audit FILE --data ROWS.csv --out CODED.csv       collected rows held against the routing: blanks that it
        [--keep NAMES] [--code-blanks]             explains are coded, all else is listed and left alone;
        [--blank-picks] [--encoding E]             CSV with any delimiter, or XLSX by the file's name

  --json    print JSON instead of a report
  --help    print this

Exit code 0: done, no errors found; 1: the questionnaire has errors; 2: the call or the file could not be used.`;

const COMMANDS: Readonly<Record<string, (args: readonly string[]) => number | Promise<number>>> = {
  check,
  analyse: analyseCommand,
  routes: routesCommand,
  walk: walkCommand,
  simulate: simulateCommand,
  audit: auditCommand,
};

function main(args: readonly string[]): number | Promise<number> {
  const [name, ...rest] = args;
  if (name === undefined || args.includes('--help')) {
    process.stdout.write(`${USAGE}\n`);
    return name === undefined ? 2 : 0;
  }
  const command = COMMANDS[name];
  if (command === undefined) {
    throw new Misuse(`there is no command "${name}": use ${Object.keys(COMMANDS).join(', ')}`);
  }
  return command(rest);
}

// A reader that has seen enough (`| head`) is no fault.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error;
  process.exit();
});

try {
  process.exitCode = await main(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof Misuse)) throw error;
  process.stderr.write(`jolly-fork: ${error.message.replaceAll('\n', ' ')}\n`);
  process.exitCode = 2;
}
