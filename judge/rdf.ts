/** Sets of RDF quads, as the reader of CSVW takes its metadata. */
import factory from '@rdfjs/data-model';
import rdfDataset from '@rdfjs/dataset';

interface Told {
  readonly termType: string;
  readonly value: string;
  readonly language?: string;
  readonly datatype?: Told;
}
interface Quad {
  readonly subject: Told;
  readonly predicate: Told;
  readonly object: Told;
}

/** Quads that were only written out, as terms that can be compared. */
export function datasetOf(quads: readonly Quad[]): unknown {
  const term = ({ termType, value, language, datatype }: Told): unknown => {
    if (termType === 'BlankNode') return factory.blankNode(value.replace(/^_:/, ''));
    if (termType !== 'Literal') return factory.namedNode(value);
    return factory.literal(value, language || (datatype && factory.namedNode(datatype.value)));
  };
  return rdfDataset.dataset(
    quads.map(({ subject, predicate, object }) =>
      factory.quad(term(subject) as never, term(predicate) as never, term(object) as never),
    ) as never,
  );
}
