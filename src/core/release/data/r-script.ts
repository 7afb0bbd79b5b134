/**
 * A script in base R that reads the rows beside it: labels, factors, and why a value is missing apart from the values.
 * All text is written in ASCII, so that it reads the same whatever the locale.
 */
import type { WrittenFile } from '../format-types';
import type { AboutData } from './csvw';
import type { DataField } from './fields';
import type { DataRows } from './rows';
import { DATA_FILE, dataCsv } from './tables';

export const R_FILE = 'read-data.R';

export function rFiles(fields: readonly DataField[], data: DataRows, about: AboutData): WrittenFile[] {
  return [
    { name: DATA_FILE, text: dataCsv(fields, data) },
    { name: R_FILE, text: rScript(fields, data, about) },
  ];
}

function rScript(fields: readonly DataField[], data: DataRows, { title, version }: AboutData): string {
  return `# Reads ${DATA_FILE}, which lies beside this script, in base R.
# ${ascii(`${title}. ${version}. Rows: ${data.about}.`)}
#
# It makes three data frames with the same rows and columns:
#   data    answers: factors with labels, numbers, dates, text; NA where there is none
#   reasons why there is none, as a factor; NA where there is an answer
#   codes   the cells as they are coded, those for no answer among them
# and frequencies("NAME"), which counts every code of a column.

variables <- list(
${fields.map(variable).join(',\n')}
)
names(variables) <- vapply(variables, function(v) v$name, "")

codes <- read.csv("${DATA_FILE}", colClasses = "character", na.strings = character(0),
                  check.names = FALSE, encoding = "UTF-8")
if (ncol(codes) != ${fields.length})
  stop("${DATA_FILE} has ", ncol(codes), " columns, and this script knows ${fields.length}: take both from the same version.")
if (!identical(names(codes), unname(names(variables))))
  stop("The columns of ${DATA_FILE} are not those of this script: take both from the same version.")

answers_of <- function(v) {
  cells <- codes[[v$name]]
  cells[cells == "" | cells %in% as.character(v$missing)] <- NA
  x <- if (length(v$values) > 0) {
    factor(cells, levels = as.character(v$values), labels = names(v$values), ordered = v$measure == "ordinal")
  } else switch(v$holds,
    whole = as.numeric(cells),
    number = as.numeric(cells),
    date = as.Date(cells),
    datetime = as.POSIXct(cells, format = "%Y-%m-%dT%H:%M", tz = "UTC"),
    cells)
  attr(x, "label") <- v$label
  attr(x, "question") <- v$question
  x
}

reasons_of <- function(v) {
  cells <- codes[[v$name]]
  words <- as.character(names(v$missing))
  reasons <- factor(words[match(cells, as.character(v$missing))], levels = unique(words))
  attr(reasons, "label") <- paste("Why missing:", v$label)
  reasons
}

# A value that is listed nowhere is a mistake in the file, and is not read over.
for (v in variables[vapply(variables, function(v) length(v$values) > 0, NA)]) {
  known <- c("", as.character(v$values), as.character(v$missing))
  unknown <- setdiff(codes[[v$name]], known)
  if (length(unknown) > 0)
    stop(v$name, " holds values that are no codes of it: ", paste(unknown, collapse = ", "))
}

data <- as.data.frame(lapply(variables, answers_of), optional = TRUE, stringsAsFactors = FALSE)
reasons <- as.data.frame(lapply(variables, reasons_of), optional = TRUE)

# Every code of a column with its label, how often it comes, and whether it stands for no answer.
frequencies <- function(name) {
  v <- variables[[name]]
  if (is.null(v)) stop("There is no column ", name, ".")
  cells <- codes[[name]]
  if (length(v$values) > 0) {
    answers <- as.character(v$values)
    words <- names(v$values)
  } else {
    answers <- sort(setdiff(unique(cells), c("", as.character(v$missing))))
    words <- answers
  }
  missing <- as.character(v$missing)
  data.frame(
    code = c(answers, missing),
    label = c(words, as.character(names(v$missing))),
    count = vapply(c(answers, missing), function(code) sum(cells == code), 0L, USE.NAMES = FALSE),
    missing = rep(c(FALSE, TRUE), c(length(answers), length(missing))),
    stringsAsFactors = FALSE
  )
}
`;
}

function variable({ name, label, question, holds, measure, values, missing }: DataField): string {
  const pairs = (list: readonly { readonly code: number | string; readonly label: string }[]) =>
    list.length === 0
      ? 'character(0)'
      : `c(${list.map(({ code, label: words }) => `${named(words)} = ${text(String(code))}`).join(', ')})`;
  const parts = [
    `name = ${text(name)}`,
    `label = ${text(label)}`,
    `question = ${text(question)}`,
    `holds = ${text(holds)}`,
    `measure = ${text(measure)}`,
    `values = ${pairs(values)}`,
    `missing = ${pairs(missing)}`,
  ];
  return `  list(${parts.join(', ')})`;
}

/** A name of a value: R takes none that is empty. */
function named(words: string): string {
  return text(words === '' ? '(no label)' : words);
}

function text(words: string): string {
  return `"${ascii(words, true)}"`;
}

/** With `quoted`, as it stands between quotes; otherwise on one line of a comment. */
function ascii(words: string, quoted = false): string {
  return Array.from(words, (sign) => {
    const point = sign.codePointAt(0) ?? 0;
    // Half of a pair, which is no sign.
    const code = point >= 0xd800 && point <= 0xdfff ? 0xfffd : point;
    if (quoted && (sign === '"' || sign === '\\')) return `\\${sign}`;
    if (sign === '\n') return quoted ? '\\n' : ' ';
    // R cannot hold a zero in a text at all.
    if (code === 0) return '';
    if (code < 32 || code > 126) {
      if (!quoted) return code < 32 ? ' ' : '?';
      return code > 0xffff
        ? `\\U${code.toString(16).padStart(8, '0')}`
        : `\\u${code.toString(16).padStart(4, '0')}`;
    }
    return sign;
  }).join('');
}
