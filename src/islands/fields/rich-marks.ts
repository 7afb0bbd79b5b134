/** How a text is shown while it is written: bold bold, links as links, pipes as pipes, and the marks that make them faint. */
import { RangeSetBuilder, type Extension } from '@codemirror/state';
import { Decoration, ViewPlugin, type DecorationSet, type EditorView } from '@codemirror/view';
import { parser } from '@lezer/markdown';

/** What of Markdown is shown to respondents; see `ui/RichText.tsx`. */
const SHOWN = parser.configure({
  remove: [
    'IndentedCode',
    'FencedCode',
    'Blockquote',
    'HorizontalRule',
    'ATXHeading',
    'SetextHeading',
    'HTMLBlock',
    'LinkReference',
    'InlineCode',
    'HTMLTag',
    'Image',
    'Autolink',
  ],
});

const CLASSES: Readonly<Record<string, string>> = {
  StrongEmphasis: 'rich-strong',
  Emphasis: 'rich-em',
  Link: 'rich-link',
  EmphasisMark: 'rich-mark',
  LinkMark: 'rich-mark',
  URL: 'rich-mark',
  ListMark: 'rich-list',
};

const PIPE = /\{\{|\}\}|\{[A-Za-z][A-Za-z0-9_]*\}/g;

function marksOf(view: EditorView): DecorationSet {
  const text = view.state.doc.toString();
  const found: { from: number; to: number; name: string }[] = [];
  SHOWN.parse(text).iterate({
    enter: ({ name, from, to }) => {
      const style = CLASSES[name];
      if (style !== undefined && to > from) found.push({ from, to, name: style });
    },
  });
  for (const { 0: whole, index } of text.matchAll(PIPE))
    found.push({
      from: index,
      to: index + whole.length,
      name: whole.length > 2 && !/^(\{\{|\}\})$/.test(whole) ? 'rich-pipe' : 'rich-mark',
    });
  const marks = new RangeSetBuilder<Decoration>();
  for (const { from, to, name } of found.sort((a, b) => a.from - b.from || b.to - a.to))
    marks.add(from, to, Decoration.mark({ class: name }));
  return marks.finish();
}

export const richMarks: Extension = ViewPlugin.define(
  (view) => {
    const plugin = {
      marks: marksOf(view),
      update: ({ docChanged, view: of }: { docChanged: boolean; view: EditorView }) => {
        if (docChanged) plugin.marks = marksOf(of);
      },
    };
    return plugin;
  },
  { decorations: ({ marks }) => marks },
);
