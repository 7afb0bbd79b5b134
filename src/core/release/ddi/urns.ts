/**
 * Names that last (URNs of DDI) for the parts of a questionnaire: an unchanged part has the same one in every version, and
 * one that changed keeps its id under another version number, which is made of what it holds.
 */
import { fileStem } from '../../document/names';
import { element, type Element } from '../../exchange/element';

/** Whoever archives a study puts the id of their own agency here; `example` is set aside for examples (RFC 2606). */
const AGENCY = 'org.example';
const LONGEST_STEM = 48;

export type DdiKind =
  | 'instance'
  | 'study'
  | 'concepts'
  | 'universes'
  | 'universe'
  | 'collection'
  | 'questions'
  | 'question'
  | 'constructs'
  | 'sequence'
  | 'construct'
  | 'branch'
  | 'loop'
  | 'computation'
  | 'instructions'
  | 'instruction'
  | 'instruments'
  | 'instrument'
  | 'product'
  | 'categories'
  | 'category'
  | 'codelists'
  | 'codes'
  | 'code'
  | 'missing'
  | 'variables'
  | 'variable'
  | 'record'
  | 'relation';

export class Urns {
  private readonly stem: string;

  constructor(title: string) {
    this.stem = fileStem(title).slice(0, LONGEST_STEM);
  }

  /** URN, agency, id and version, as they begin every part. `content`: all that it holds, however written. */
  identity(kind: DdiKind, name: string, content: unknown): Element[] {
    const [id, version] = [this.id(kind, name), versionOf(content)];
    return [
      element('r:URN', {}, `urn:ddi:${AGENCY}:${id}:${version}`),
      element('r:Agency', {}, AGENCY),
      element('r:ID', {}, id),
      element('r:Version', {}, version),
    ];
  }

  /** To a part that holds `content`; `typed`: what DDI calls a part of its kind. */
  reference(name: string, typed: string, kind: DdiKind, of: string, content: unknown): Element {
    return element(
      name,
      {},
      element('r:URN', {}, `urn:ddi:${AGENCY}:${this.id(kind, of)}:${versionOf(content)}`),
      element('r:TypeOfObject', {}, typed),
    );
  }

  private id(kind: DdiKind, name: string): string {
    return `${this.stem}.${kind}${name === '' ? '' : `-${name}`}`;
  }
}

/** 1 and 32 bits of FNV-1a of the text, in decimals: DDI takes numbers parted by points. */
function versionOf(content: unknown): string {
  let hash = 0x811c9dc5;
  for (const byte of new TextEncoder().encode(JSON.stringify(content) ?? '')) {
    hash ^= byte;
    hash = Math.imul(hash, 0x01000193) >>> 0;
  }
  return `1.${hash}`;
}
