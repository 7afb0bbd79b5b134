/** The bank of questions, answer lists and sections, with where each is used. */
import type { APIRoute } from 'astro';
import { readContent, usesOf, type BankContent } from '../../core/editing/bank';
import { json, readBody, refuse } from '../../server/respond';
import { addToBank, listBank, removeFromBank, type BankRow } from '../../store/bank';
import { store } from '../../store/open';
import { listStudies, type Study } from '../../store/studies';
import { BankEntryToAdd, BankEntryToRemove } from '../../wire/bank';

/** What is kept, as it is sent; null where an earlier version kept something that cannot be read any more. */
function shown({ id, kind, title, content, at }: BankRow, studies: readonly Study[]) {
  const read = readContent(kind, JSON.parse(content));
  return read.ok ? { id, title, at, content: read.content, uses: usesIn(read.content, studies) } : null;
}

function usesIn(content: BankContent, studies: readonly Study[]) {
  return studies.flatMap(({ id, document }) => {
    const names = usesOf(document, content);
    return names.length === 0 ? [] : [{ study: id, title: document.title, names }];
  });
}

export const GET: APIRoute = () => {
  const studies = listStudies(store());
  return json(listBank(store()).flatMap((row) => shown(row, studies) ?? []));
};

export const POST: APIRoute = async ({ request }) => {
  const read = await readBody(request, BankEntryToAdd);
  if (!read.ok) return read.response;
  const { kind, title, content } = read.body;
  const checked = readContent(kind, content);
  if (!checked.ok) return refuse(400, checked.problem);
  const row = addToBank(store(), { kind, title, content: JSON.stringify(content), at: Date.now() });
  return json(shown(row, listStudies(store())), 201);
};

export const DELETE: APIRoute = async ({ request }) => {
  const read = await readBody(request, BankEntryToRemove);
  if (!read.ok) return read.response;
  const row = removeFromBank(store(), read.body.id);
  return row === null ? refuse(404, 'This is not in the bank any more.') : json({});
};
