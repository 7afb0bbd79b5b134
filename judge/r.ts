/** R: the script that reads the CSV, its frequencies against Tables, and a walk through the DDI along its references. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import Papa from 'papaparse';
import { columnsOf } from '../src/core/coding/columns';
import { called, fileOf, type Unpacked } from './package';
import { lackingWords, type Verdict } from './verdict';

const FREQUENCIES = `
source("read-data.R")
all <- do.call(rbind, lapply(names(variables), function(n) { f <- frequencies(n); if (nrow(f) == 0) NULL else cbind(column = n, f) }))
write.csv(all[, c("column", "code", "count")], stdout(), row.names = FALSE)
cat(nrow(data), ncol(data), sum(is.na(data$landlord)), sum(!is.na(reasons$landlord)), is.factor(data$tenure), attr(data$tenure, "label"), sep = "\\n", file = stderr())
`;

export function byR(study: Unpacked): Verdict[] {
  const script = path.join(study.folder, 'frequencies.R');
  writeFileSync(script, FREQUENCIES);
  const out = called('Rscript', ['--vanilla', script], path.dirname(fileOf(study, 'read-data.R')));
  const counted = new Map<string, number>(
    Papa.parse<string[]>(out.trim())
      .data.slice(1)
      .map(([column = '', code = '', count = '']) => [`${column} ${code}`, Number(count)] as const),
  );
  const other = [...study.counts]
    .filter(([key, count]) => (counted.get(key) ?? 0) !== count)
    .map(([key]) => key);
  return [
    {
      file: 'data.csv, read-data.R',
      reader: 'R',
      saw: `${columnsOf(study.plan).length} columns; of ${study.counts.size.toLocaleString('en')} frequencies ${
        other.length === 0
          ? 'all are as in Tables'
          : `${other.length} are other: ${other.slice(0, 5).join('; ')}`
      }`,
      ok: other.length === 0 && study.counts.size > 0,
    },
  ];
}

/** From the instrument along the references, as deep as they go; names of questions in the order in which they are met. */
const WALK = `
library(xml2)
x <- read_xml(commandArgs(TRUE)[1])
ns <- xml_ns_rename(xml_ns(x), d1 = "i")
parts <- xml_find_all(x, "//*[r:URN and r:ID]", ns)
byUrn <- setNames(as.list(seq_along(parts)), xml_text(xml_find_first(parts, "r:URN", ns)))
met <- character()
walk <- function(node) {
  name <- xml_name(node)
  if (name == "QuestionConstruct") {
    question <- parts[[byUrn[[xml_text(xml_find_first(node, "r:QuestionReference/r:URN", ns))]]]]
    met <<- c(met, xml_text(xml_find_first(question, "d:QuestionItemName | d:QuestionGridName", ns)))
    return(invisible())
  }
  for (urn in xml_text(xml_find_all(node, "d:ControlConstructReference/r:URN | d:ThenConstructReference/r:URN", ns)))
    walk(parts[[byUrn[[urn]]]])
}
walk(xml_find_first(x, "//d:Instrument", ns))
cat(trimws(met), sep = "\\n")
cat("\\nvariables", length(xml_find_all(x, "//l:Variable", ns)), "codes", length(xml_find_all(x, "//l:Code", ns)))
`;

const CODEBOOK = `
library(xml2)
x <- read_xml(commandArgs(TRUE)[1])
ns <- c(c = "ddi:codebook:2_5")
cat(xml_attr(xml_find_all(x, "//c:var", ns), "name"), sep = "\\n")
`;

export function byRXml(study: Unpacked): Verdict[] {
  const run = (text: string, ending: string) => {
    const script = path.join(study.folder, 'walk.R');
    writeFileSync(script, text);
    return called('Rscript', ['--vanilla', script, fileOf(study, ending)]).split('\n');
  };
  const lines = run(WALK, 'ddi33.xml');
  const met = lines.slice(0, -1).filter((line) => line !== '');
  const names = study.questions.map(({ name }) => name);
  const variables = run(CODEBOOK, 'ddi25.xml').filter((line) => line !== '');
  const columns = columnsOf(study.plan).map(({ name }) => name);
  const lacking = (wanted: readonly string[], found: readonly string[]) =>
    wanted.filter((name) => !found.includes(name));
  return [
    {
      file: 'ddi33.xml',
      reader: 'R, xml2',
      saw: `from the instrument along its references ${met.length} questions, in ${
        met.join() === names.join() ? 'the order of the script' : 'another order'
      }; ${lines.at(-1)}; ${lackingWords(lacking(names, met))}`,
      ok: met.join() === names.join(),
    },
    {
      file: 'ddi25.xml',
      reader: 'R, xml2',
      saw: `${variables.length} variables; ${lackingWords(lacking(columns, variables))}`,
      ok: variables.join() === columns.join(),
    },
  ];
}
