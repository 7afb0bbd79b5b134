/** The readers as far as they are used: their packages are installed by `npm run judge-files` alone. */
declare module '@duckdb/node-api' {
  interface Read {
    getRowObjects(): readonly Readonly<Record<string, unknown>>[];
  }
  export const DuckDBInstance: {
    create(path: string): Promise<{ connect(): Promise<{ runAndReadAll(sql: string): Promise<Read> }> }>;
  };
}
declare module '@zazuko/rdf-parser-csvw' {
  export default class CsvwParser {
    constructor(options: { metadata: unknown; baseIRI: string });
    import(stream: unknown): unknown;
  }
}
declare module 'jsonld' {
  const jsonld: { toRDF(document: unknown, options: { base: string }): Promise<unknown> };
  export default jsonld;
}
declare module 'tableschema' {
  export const Schema: {
    load(descriptor: unknown): Promise<{
      readonly errors: unknown;
      readonly fieldNames: unknown;
      castRow(row: readonly string[]): unknown;
    }>;
  };
}
declare module '@rdfjs/data-model' {
  const factory: {
    blankNode(name: string): unknown;
    namedNode(iri: string): unknown;
    literal(value: string, about: unknown): unknown;
    quad(subject: never, predicate: never, object: never): unknown;
  };
  export default factory;
}
declare module '@rdfjs/dataset' {
  const factory: { dataset(quads: never): unknown };
  export default factory;
}
