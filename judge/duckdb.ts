/** DuckDB: Parquet and CSV, counted column by column, against Tables. */
import { DuckDBInstance } from '@duckdb/node-api';
import { fileOf, type Unpacked } from './package';
import { lackingWords, type Verdict } from './verdict';

export async function byDuckDb(study: Unpacked): Promise<Verdict[]> {
  const database = await DuckDBInstance.create(':memory:');
  const connection = await database.connect();
  const verdicts: Verdict[] = [];
  for (const [ending, from] of [
    ['parquet', `read_parquet('${fileOf(study, '.parquet')}')`],
    ['data.csv', `read_csv('${fileOf(study, 'data.csv')}', all_varchar = true, header = true)`],
  ] as const) {
    const rows = await connection.runAndReadAll(`select count(*)::integer as n from ${from}`);
    const n = Number(rows.getRowObjects()[0]?.n);
    const columns = new Set([...study.counts.keys()].map((key) => key.slice(0, key.indexOf(' '))));
    let other = 0;
    for (const column of columns) {
      const found = await connection.runAndReadAll(
        `select cast("${column}" as varchar) as code, count(*)::integer as n from ${from} group by 1`,
      );
      const counted = new Map(
        found.getRowObjects().map(({ code, n: count }) => [String(code), Number(count)]),
      );
      for (const [key, count] of study.counts)
        if (key.startsWith(`${column} `) && (counted.get(key.slice(column.length + 1)) ?? 0) !== count)
          other += 1;
    }
    verdicts.push({
      file: ending,
      reader: 'DuckDB',
      saw: `${n.toLocaleString('en')} rows; in ${columns.size} columns ${
        other === 0 ? 'every code as often as in Tables' : `${other} codes are counted otherwise`
      }`,
      ok: other === 0 && n === study.rows.rows.length,
    });
  }
  const steps = await Promise.all(
    ['read_csv_auto', 'read_json_auto'].map(async (reader) => {
      const from = `${reader}('${fileOf(study, reader === 'read_csv_auto' ? 'steps.csv' : 'steps.json')}')`;
      const sql =
        reader === 'read_csv_auto'
          ? `select count(*)::integer as n, count(distinct respondent)::integer as people from ${from}`
          : `select sum(len(r.steps))::integer as n, count(*)::integer as people from (select unnest(respondents) as r from ${from})`;
      const [row = {}] = (await connection.runAndReadAll(sql)).getRowObjects();
      return [Number(row.people), Number(row.n)] as const;
    }),
  );
  const [[people = 0, n = 0] = [], [peopleAgain, again] = []] = steps;
  verdicts.push({
    file: 'steps.csv, steps.json',
    reader: 'DuckDB',
    saw: `${people} respondents with ${n} steps in either`,
    ok: people > 0 && people === peopleAgain && n === again,
  });
  const listed = await connection.runAndReadAll(
    `select name from read_csv('${fileOf(study, 'items.csv')}', all_varchar = true, header = true)`,
  );
  const names = listed.getRowObjects().map(({ name }) => name);
  const lacking = study.questions.filter(({ name }) => !names.includes(name)).map(({ name }) => name);
  verdicts.push({
    file: 'items.csv',
    reader: 'DuckDB',
    saw: `${names.length} rows; ${lackingWords(lacking)} of ${study.questions.length} questions`,
    ok: lacking.length === 0,
  });
  return verdicts;
}
