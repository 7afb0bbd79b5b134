/**
 * Runs one command of the command line: misuse becomes one line on standard error and exit code 2, a fault of the
 * program one line with the place and exit code 3.
 */
import { TooMuch } from '../core/analysis';
import { Misuse } from './files';
import { COMMAND_NAMES, USAGE } from './usage';

export type Commands = Readonly<Record<string, (args: readonly string[]) => number | Promise<number>>>;

export interface Streams {
  readonly out: (text: string) => void;
  readonly problem: (text: string) => void;
}

/** The exit code. `args` begins with the command, which is among those given unless there is none of that name. */
export async function run(
  commands: Commands,
  args: readonly string[],
  { out, problem }: Streams,
): Promise<number> {
  const [name, ...rest] = args;
  if (name === undefined || args.includes('--help')) {
    out(`${USAGE}\n`);
    return name === undefined ? 2 : 0;
  }
  const say = (sentence: string) => problem(`jolly-fork: ${sentence.replaceAll(/\s*\n\s*/g, ' ')}\n`);
  try {
    const command = Object.hasOwn(commands, name) ? commands[name] : undefined;
    if (command === undefined)
      throw new Misuse(`there is no command "${name}": use ${COMMAND_NAMES.join(', ')}`);
    return await command(rest);
  } catch (error) {
    if (error instanceof Misuse) {
      say(error.message);
      return 2;
    }
    if (error instanceof TooMuch) {
      say('the conditions of this questionnaire are too entangled for that: jolly-fork check says where');
      return 2;
    }
    say(faultWords([name, ...rest], error));
    return 3;
  }
}

/** Which call failed, and where in the program, as somebody who mends it needs it; never a whole stack. */
export function faultWords(call: readonly string[], error: unknown): string {
  const { message, stack = '' } = error instanceof Error ? error : new Error(String(error));
  const where = /^\s+at (?:async )?([\w.$<>]+)/m.exec(stack)?.[1];
  const place = where === undefined ? '' : ` (in ${where})`;
  return `“${call.join(' ')}” failed by a fault of the program, not of the file: ${message}${place}`;
}
