/** What the command line can do, and its help. */

export const COMMAND_NAMES = [
  'check',
  'analyse',
  'routes',
  'walk',
  'simulate',
  'audit',
  'compare',
  'convert',
  'verify',
  'forecast',
  'backup',
  'restore',
] as const;
export type CommandName = (typeof COMMAND_NAMES)[number];

export const USAGE = `Usage: jolly-fork COMMAND FILE [options]

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
        [--blank-picks] [--encoding E]             CSV with any delimiter, or XLSX by the file's name;
        [--case NAME]                              the column in which each case number is to come once
  convert FILE --to FORMAT --out PATH              a questionnaire as another file: document, script, items,
         [--data ROWS.csv]                         paper, form, codebook, route-book, map, test-pack (a
         [--simulate N --seed S]                   folder), ddi-lifecycle, ddi-codebook, schema; its data as
                                                   csvw, data-package, parquet, r; instrument: one page that
         [--post URL]                              runs it, and posts each case to an address; package: all
                                                   in one zip
  convert PATH --from FORMAT --out FILE            a questionnaire of one: document, script, items, list, docx,
                                                   ddi-lifecycle, ddi-codebook, csvw, data-package (what was
                                                   not understood is listed by its place)
  compare OLD NEW                                  what is other in a new version: routes lost, gained and
                                                   changed, who is asked what, words, codes, and where a
                                                   series of data breaks; exit code 1 where routes differ
  verify FILE --observed STEPS.csv                 what another implementation showed, step by step: where it
                                                   left the route, and which forks nobody has tried yet
  forecast FILE --starts N [--break-off P]         how many will be asked each question, and how long it
           [--goal NAME=n]… [--set NAME]           takes; P: chance of breaking off a minute; NAME: an item,
                                                   NAME#PASS or an ending of which n are wanted; --set: by
                                                   a set of assumptions of the study

  backup FILE [--data FOLDER]                      all that is saved into one file, while the app runs
  restore FILE [--data FOLDER]                     a backup back in its place, while it does not; what was
                                                   there is kept beside it. FOLDER: $JOLLY_FORK_DATA or data

  --json    print JSON instead of a report
  --help    print this

Exit code 0: done, no errors found; 1: the questionnaire has errors; 2: the call or the file could not be used;
3: a fault of the program.`;
