/** DuckDB: Parquet and CSV, counted column by column, against Tables. */
import { DuckDBInstance } from '@duckdb/node-api';
import { forecastedFor } from '../src/core/release/sheets/forecast-tables';
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
  verdicts.push(
    await ofForecast(study, async (sql) => (await connection.runAndReadAll(sql)).getRowObjects()),
  );
  return verdicts;
}

/** Everybody ends once, and every question has its row with figures that are read as numbers. */
async function ofForecast(
  study: Unpacked,
  asked: (sql: string) => Promise<readonly Readonly<Record<string, unknown>>[]>,
): Promise<Verdict> {
  const from = `read_csv_auto('${fileOf(study, 'forecast.csv')}')`;
  const [ends] = await asked(
    `select sum(share)::double as share, sum(expected)::double as expected from ${from} where "of" = 'ending'`,
  );
  const items = await asked(
    `select distinct name from ${from} where "of" = 'item' and low <= expected and expected <= high`,
  );
  const names = items.map(({ name }) => name);
  const lacking = study.questions.filter(({ name }) => !names.includes(name)).map(({ name }) => name);
  const starts = forecastedFor(study.plan).made.starts;
  const share = Number(ends?.share);
  return {
    file: 'forecast.csv',
    reader: 'DuckDB',
    saw: `bases of ${names.length} items, each within its range; shares of the endings add up to ${share.toFixed(6)}; ${lackingWords(lacking)} of ${study.questions.length} questions`,
    ok:
      lacking.length === 0 &&
      Math.abs(share - 1) < 1e-9 &&
      Math.abs(Number(ends?.expected) - starts) < 1e-6 * starts,
  };
}
