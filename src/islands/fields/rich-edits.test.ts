/** What the tools of a text make of the Markdown: marks on and off again, links, lists and their ends. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { EditorState, type TransactionSpec } from '@codemirror/state';
import type { EditorView } from '@codemirror/view';
import { makeLink, newLine, pastedAddress, toggleList, toggleMarks } from './rich-edits';

/** `|` stands for the caret, or for both ends of what is selected. */
function stateOf(text: string): EditorState {
  const [before = '', selected, after] = text.split('|');
  const doc = before + (after === undefined ? (selected ?? '') : selected + after);
  const head = after === undefined ? before.length : before.length + (selected ?? '').length;
  return EditorState.create({ doc, selection: { anchor: before.length, head } });
}

function after(text: string, ...edits: readonly ((view: EditorView) => unknown)[]): string {
  let state = stateOf(text);
  const view = {
    get state() {
      return state;
    },
    dispatch: (spec: TransactionSpec) => void (state = state.update(spec).state),
  } as EditorView;
  for (const edit of edits) edit(view);
  const { from, to } = state.selection.main;
  const doc = state.doc.toString();
  return from === to
    ? `${doc.slice(0, from)}|${doc.slice(from)}`
    : `${doc.slice(0, from)}|${doc.slice(from, to)}|${doc.slice(to)}`;
}

const bold = (view: EditorView) => toggleMarks(view, '**');

describe('a text while it is written', () => {
  it('is marked, and the marks go again', () => {
    assert.equal(after('Who |heats| it?', bold), 'Who **|heats|** it?');
    assert.equal(after('Who |heats| it?', bold, bold), 'Who |heats| it?');
    assert.equal(after('Who |', bold), 'Who **|**');
    // Marks on one side alone are words of the text.
    assert.equal(after('Who **|heats| it?', bold), 'Who ****|heats|** it?');
    assert.equal(after('Who |heats|** it?', bold), 'Who **|heats|**** it?');
    const keys = [
      bold,
      newLine,
      (view: EditorView) => toggleList(view, '-'),
      (view: EditorView) => makeLink(view),
    ];
    // Each says that the key is dealt with, so that the browser does nothing of its own.
    for (const key of keys) after('Who |heats| it?', (view) => assert.equal(key(view), true));
    after('- |', (view) => assert.equal(newLine(view), true));
  });

  it('is linked, its address to be written, or pasted over words', () => {
    assert.equal(
      after('See |the page|.', (view) => makeLink(view)),
      'See [the page](|https://|).',
    );
    assert.equal(
      after('See |the page|.', (view) => makeLink(view, 'https://example.org')),
      'See [the page](https://example.org)|.',
    );
    assert.equal(
      after('See |.', (view) => makeLink(view)),
      'See [|](https://).',
    );
    assert.equal(pastedAddress(stateOf('See |the page|.'), ' https://example.org\n'), 'https://example.org');
    assert.equal(pastedAddress(stateOf('See |.'), 'https://example.org'), null);
    assert.equal(pastedAddress(stateOf('See |it|.'), 'javascript:alert(1)'), null);
  });

  it('becomes a list and stops being one', () => {
    const list = (view: EditorView) => toggleList(view, '-');
    assert.equal(after('|one\ntwo|', list).replaceAll('|', ''), '- one\n- two');
    assert.equal(after('|one\ntwo|', list, list).replaceAll('|', ''), 'one\ntwo');
    assert.equal(
      after('|one\ntwo|', list, (view) => toggleList(view, '1.')).replaceAll('|', ''),
      '1. one\n2. two',
    );
  });

  it('goes on in a list with its next entry, and ends it with an empty one', () => {
    assert.equal(after('- one|', newLine), '- one\n- |');
    assert.equal(after('2. two|', newLine), '2. two\n3. |');
    assert.equal(after('- one|', newLine, newLine), '- one\n|');
    assert.equal(after('one|', newLine), 'one\n|');
  });
});
