/** Response domains of DDI as answers: codes, numbers, texts, dates, ranks and grids. */
import { isWritten } from '../../document/answer-types';
import type { Answer, Option } from '../../document/types';
import { allNamed, childOf, childrenOf, type ReadElement } from '../../exchange/xml';

type Refer = (reference: ReadElement | undefined) => ReadElement | undefined;
type Tell = (at: ReadElement, what: string) => void;

interface Listed {
  readonly value: string;
  readonly label: string;
  readonly missing: boolean;
}

export class DdiAnswers {
  constructor(
    private readonly refer: Refer,
    private readonly tell: Tell,
  ) {}

  /** `fresh`: a name that is free, for a row of a grid. */
  answerOf(question: ReadElement, fresh: (words: string) => string): Answer {
    if (question.name === 'QuestionGrid') return this.grid(question, fresh);
    const mixed = childOf(question, 'StructuredMixedResponseDomain');
    const domains = (mixed === undefined ? [question] : allNamed(mixed, 'ResponseDomainInMixed')).flatMap(
      ({ children }) => children.filter(({ name }) => DOMAINS.has(name)),
    );
    const [first, ...others] = domains;
    if (first === undefined) {
      this.tell(question, 'what can be answered is not said: a text is asked for');
      return { type: 'text' };
    }
    const beside = others
      .filter(({ name }) => name === 'CodeDomain')
      .flatMap((domain) => this.options(domain));
    for (const other of others)
      if (other.name !== 'CodeDomain')
        this.tell(other, `<${other.name}> as a second way to answer was not taken over`);
    const answer = this.ofDomain(first, question);
    if (beside.length === 0) return answer;
    const specials = beside.map((option): Option => ({ missing: 'not_available', ...option }));
    return 'options' in answer || isWritten(answer) ? answer : { ...answer, specials };
  }

  private ofDomain(domain: ReadElement, question: ReadElement): Answer {
    switch (domain.name) {
      case 'CodeDomain':
      case 'CategoryDomain': {
        const options = this.optionsOr(domain, question);
        return { type: mostOf(domain) > 1 ? 'multiple' : 'single', options };
      }
      case 'RankingDomain': {
        const options = this.optionsOr(domain, question);
        const top = mostOf(domain);
        return { type: 'rank', options, ...(top < options.length && top > 0 ? { top } : {}) };
      }
      case 'NumericDomain':
        return this.number(domain, 'number');
      case 'ScaleDomain':
        return this.number(domain, 'scale');
      case 'DateTimeDomain':
        return date(domain);
      default: {
        if (domain.name !== 'TextDomain')
          this.tell(domain, `<${domain.name}> is no way to answer that is known here: a text is asked for`);
        const { minLength, maxLength } = domain.attributes;
        return {
          type: 'text',
          ...(wholeIn(minLength) === null ? {} : { minLength: Number(minLength) }),
          ...(wholeIn(maxLength) === null ? {} : { maxLength: Number(maxLength) }),
        };
      }
    }
  }

  private number(domain: ReadElement, type: 'number' | 'scale'): Answer {
    const [low, high] = ['Low', 'High'].map((name) => Number(allNamed(domain, name)[0]?.text.trim() || NaN));
    const isLimited = Number.isFinite(low) && Number.isFinite(high);
    if (!isLimited) this.tell(domain, 'the number has no limits: 0 to 1,000,000 were taken');
    const limits = isLimited ? { min: low ?? 0, max: high ?? 0 } : { min: 0, max: 1_000_000 };
    const scale = wholeIn(domain.attributes.scale);
    return type === 'scale'
      ? { type, ...limits }
      : { type, ...limits, ...(scale ? { decimals: Math.min(6, scale) } : {}) };
  }

  private grid(question: ReadElement, fresh: (words: string) => string): Answer {
    const dimension = childOf(question, 'GridDimension');
    const rows = (dimension === undefined ? [] : this.listed(dimension)).map(({ value, label }) => ({
      name: fresh(value || label),
      label,
    }));
    if (rows.length === 0) this.tell(question, 'the rows of the grid are not said: one empty row was made');
    for (const other of childrenOf(question, 'GridDimension').slice(1))
      this.tell(other, 'a second dimension of the grid was not taken over');
    const domain = question.children.find(({ name }) => name === 'CodeDomain');
    return {
      type: 'grid',
      rows: rows.length > 0 ? rows : [{ name: fresh('row'), label: '' }],
      options: this.optionsOr(domain ?? question, question),
      ...(domain !== undefined && mostOf(domain) > 1 ? { pick: 'many' } : {}),
    };
  }

  private optionsOr(domain: ReadElement, question: ReadElement): Option[] {
    const options = this.options(domain);
    if (options.length > 0) return options;
    this.tell(question, 'there are no codes to choose from: one empty answer was made');
    return [{ code: 1, label: '' }];
  }

  private options(domain: ReadElement): Option[] {
    const listed = this.listed(domain);
    const coded = listed.every(({ value }) => /^-?\d{1,15}$/.test(value));
    if (!coded) this.tell(domain, 'its codes are not all whole numbers: they are numbered from 1');
    return listed.map(({ value, label, missing }, n) => ({
      code: coded ? Number(value) : n + 1,
      label,
      ...(missing ? { missing: 'not_available' as const } : {}),
    }));
  }

  private listed(domain: ReadElement): Listed[] {
    const list = this.refer(allNamed(domain, 'CodeListReference')[0]);
    if (list === undefined) return [];
    return childrenOf(list, 'Code').map((code) => {
      const category = this.refer(childOf(code, 'CategoryReference'));
      const label = category && childOf(category, 'Label');
      return {
        value: childOf(code, 'Value')?.text.trim() ?? '',
        label: (label?.children[0] ?? label)?.text ?? '',
        missing: category?.attributes.isMissing === 'true',
      };
    });
  }
}

const DOMAINS = new Set([
  'CodeDomain',
  'CategoryDomain',
  'RankingDomain',
  'NumericDomain',
  'ScaleDomain',
  'DateTimeDomain',
  'TextDomain',
  'GeographicDomain',
  'GeographicLocationCodeDomain',
  'GeographicStructureCodeDomain',
  'LocationDomain',
  'NominalDomain',
  'DistributionDomain',
]);

/** Answers at most; 1 where nothing is said. */
function mostOf(domain: ReadElement): number {
  const said = wholeIn(childOf(domain, 'ResponseCardinality')?.attributes.maximumResponses);
  return said ?? 1;
}

function wholeIn(text: string | undefined): number | null {
  return text !== undefined && /^\d{1,9}$/.test(text) ? Number(text) : null;
}

function date(domain: ReadElement): Answer {
  const words = (allNamed(domain, 'DateTypeCode')[0]?.text.trim() ?? '').toLowerCase();
  const type = words === 'time' ? 'time' : words === 'datetime' ? 'datetime' : 'date';
  const limit = (name: string) => allNamed(domain, name)[0]?.text.trim();
  const [min, max] = [limit('MinimumValue'), limit('MaximumValue')];
  return { type, ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
}
