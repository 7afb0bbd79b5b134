/** An author's words with their marks of emphasis, as paragraphs of runs: what a respondent sees bold or italic stays so. */
import { parser } from '@lezer/markdown';
import type { Block, Run, Runs } from './pages';

type Style = Pick<Run, 'bold' | 'italic'>;

/** Nodes that are signs of Markdown, and no words. */
const SIGNS = new Set(['EmphasisMark', 'LinkMark', 'ListMark', 'HeaderMark', 'QuoteMark', 'CodeMark']);

/** Paragraphs, those of a list with a bullet. */
export function markedBlocks(text: string): Block[] {
  const blocks: Block[] = [];
  let bullets = 0;
  parser.parse(text).iterate({
    enter: ({ name, from, to, node }) => {
      if (name === 'ListItem') bullets += 1;
      const isLeaf = name === 'Paragraph' || name.endsWith('Heading') || name === 'CodeBlock';
      if (!isLeaf) return true;
      const runs = trimmed(runsIn(text, node, from, to, {}));
      if (runs.length > 0)
        blocks.push({ is: 'text', runs, ...(bullets > 0 ? { bullet: true as const } : {}) });
      return false;
    },
    leave: ({ name }) => {
      if (name === 'ListItem') bullets -= 1;
    },
  });
  // What is no paragraph to Markdown (a line of dashes, HTML) still is words of the author.
  if (blocks.length === 0 && text.trim() !== '') return [{ is: 'text', runs: [{ text: text.trim() }] }];
  return blocks;
}

/** The same in one line. */
export function markedRuns(text: string): Runs {
  return markedBlocks(text).flatMap((block, n) =>
    block.is === 'text' ? [...(n === 0 ? [] : [{ text: ' ' }]), ...block.runs] : [],
  );
}

/** The words alone. */
export function markedWords(text: string): string {
  return markedRuns(text)
    .map((run) => run.text)
    .join('');
}

type Node = ReturnType<ReturnType<typeof parser.parse>['resolve']>;

function runsIn(text: string, node: Node, from: number, to: number, style: Style): Run[] {
  const runs: Run[] = [];
  let at = from;
  const words = (until: number) => {
    if (until > at) runs.push({ text: text.slice(at, until).replaceAll(/\s*\n\s*/g, ' '), ...style });
    at = Math.max(at, until);
  };
  for (let child = node.firstChild; child !== null; child = child.nextSibling) {
    words(child.from);
    const { name } = child;
    if (name === 'StrongEmphasis')
      runs.push(...runsIn(text, child, child.from, child.to, { ...style, bold: true }));
    else if (name === 'Emphasis')
      runs.push(...runsIn(text, child, child.from, child.to, { ...style, italic: true }));
    else if (name === 'Link') runs.push(...runsIn(text, child, child.from, child.to, style));
    else if (name === 'HardBreak') runs.push({ text: ' ', ...style });
    else if (name === 'Escape') runs.push({ text: text.slice(child.from + 1, child.to), ...style });
    else if (name === 'URL') runs.push({ text: ` ${text.slice(child.from, child.to)}`, ...style });
    else if (!SIGNS.has(name)) runs.push({ text: text.slice(child.from, child.to), ...style });
    at = Math.max(at, child.to);
  }
  words(to);
  return runs;
}

function trimmed(runs: readonly Run[]): Run[] {
  return runs.filter(({ text }) => text !== '');
}
