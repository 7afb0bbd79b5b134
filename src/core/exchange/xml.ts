/** XML as a tree that is built first and written in one go, and read in one go: neither opens, fetches nor expands anything. */
import { SaxesParser } from 'saxes';
import xmlbuilder from 'xmlbuilder';
import type { Element } from './element';
import { sound } from './markup';

/** The whole file, in UTF-8. */
export function xmlText(root: Element): string {
  const { name, attributes, children } = root;
  const top = xmlbuilder.create(name, { encoding: 'UTF-8' });
  const fill = (at: xmlbuilder.XMLElement, of: Pick<Element, 'attributes' | 'children'>) => {
    for (const [key, value] of Object.entries(of.attributes)) at.att(key, sound(value));
    for (const child of of.children) {
      if (typeof child === 'string') at.txt(sound(child));
      else fill(at.ele(child.name), child);
    }
  };
  fill(top, { attributes, children });
  return `${top.end({ pretty: true })}\n`;
}

/** An element as it was read: without the prefix that its file chose, in the order of the file. */
export interface ReadElement {
  readonly name: string;
  readonly namespace: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly ReadElement[];
  /** Its own words and those of all within it. */
  readonly text: string;
  /** From 1. */
  readonly line: number;
}

export type XmlRead =
  | { readonly ok: true; readonly root: ReadElement }
  /** A sentence. */
  | { readonly ok: false; readonly problem: string };

/** In signs: codebooks of many thousand variables are smaller. */
const MOST_SIGNS = 30_000_000;
const MOST_ELEMENTS = 800_000;
const MOST_DEPTH = 200;

/** Refuses what no file of this kind has a use for: a document type, with the entities that it could define. */
export function readXml(bytes: Uint8Array): XmlRead {
  if (bytes.length > MOST_SIGNS) return { ok: false, problem: `It is larger than ${MOST_SIGNS / 1e6} MB.` };
  let text: string;
  try {
    text = new TextDecoder(encodingOf(bytes), { fatal: true }).decode(bytes);
  } catch {
    return { ok: false, problem: 'It is no text in the encoding that it names: save it as UTF-8.' };
  }
  try {
    return { ok: true, root: treeOf(text) };
  } catch (error) {
    const [first = ''] = (error instanceof Error ? error.message : String(error)).split('\n');
    const where = first.replace(/^(\d+):\d+: /, 'line $1: ').replace(/\.$/, '');
    return { ok: false, problem: `It is no sound XML: ${where}.` };
  }
}

function encodingOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const head = String.fromCharCode(...bytes.subarray(0, 200));
  return /<\?xml[^>]*encoding=["']([A-Za-z0-9._-]+)["']/.exec(head)?.[1] ?? 'utf-8';
}

class Node implements ReadElement {
  readonly children: Node[] = [];
  private readonly parts: (Node | string)[] = [];

  constructor(
    readonly name: string,
    readonly namespace: string,
    readonly attributes: Readonly<Record<string, string>>,
    readonly line: number,
  ) {}

  get text(): string {
    return this.parts.map((part) => (typeof part === 'string' ? part : part.text)).join('');
  }

  add(part: Node | string): void {
    this.parts.push(part);
    if (typeof part !== 'string') this.children.push(part);
  }
}

function treeOf(text: string): ReadElement {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const open: Node[] = [];
  let root: ReadElement | null = null;
  let count = 0;
  parser.on('doctype', () => {
    throw new Error('it begins with a document type, which could have it grow or fetch: take that line out');
  });
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ local, uri, attributes }) => {
    count += 1;
    if (count > MOST_ELEMENTS) throw new Error('it has too many elements');
    if (open.length >= MOST_DEPTH) throw new Error('its elements stand too deep in each other');
    const given = Object.fromEntries(Object.values(attributes).map((each) => [each.local, each.value]));
    const found = new Node(local, uri, given, parser.line);
    open.at(-1)?.add(found);
    root ??= found;
    open.push(found);
  });
  const words = (more: string) => open.at(-1)?.add(more);
  parser.on('text', words);
  parser.on('cdata', words);
  parser.on('closetag', () => void open.pop());
  parser.write(text).close();
  if (root === null) throw new Error('there is nothing in it');
  return root;
}

/** The first child with a name, if any. */
export function childOf({ children }: ReadElement, name: string): ReadElement | undefined {
  return children.find((child) => child.name === name);
}

export function childrenOf({ children }: ReadElement, name: string): readonly ReadElement[] {
  return children.filter((child) => child.name === name);
}

/** Down along names, the first of each. */
export function downTo(from: ReadElement | undefined, ...names: readonly string[]): ReadElement | undefined {
  return names.reduce<ReadElement | undefined>((at, name) => at && childOf(at, name), from);
}

/** Every element with a name, at any depth. */
export function allNamed(from: ReadElement, name: string): ReadElement[] {
  const found: ReadElement[] = [];
  const look = (at: ReadElement) => {
    if (at.name === name) found.push(at);
    at.children.forEach(look);
  };
  look(from);
  return found;
}
