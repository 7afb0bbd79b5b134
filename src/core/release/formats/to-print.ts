/** Files to read, to print and to edit: script, form, codebook and route book. */
import type { FileFormat, Written } from '../format-types';
import type { Pages } from '../print/pages';
import { versionWords } from '../version-words';
import { NONE } from './lost';
import { preparedFor } from './prepared';

/** Pages as the kind of file that an ending stands for. */
async function printed(pages: Pages, kind: string): Promise<Written> {
  if (kind.endsWith('html')) return (await import('../print/html')).pagesHtml(pages);
  if (kind.endsWith('docx')) return (await import('../print/docx')).pagesDocx(pages);
  return (await import('../print/pdf')).pagesPdf(pages);
}

export const TO_PRINT = {
  paper: {
    words: 'Paper script',
    endings: ['paper.html', 'paper.pdf', 'paper.docx'],
    kinds: ['paper.html', 'paper.pdf', 'paper.docx'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      const { scriptPages } = await import('../print/script-pages');
      return printed(scriptPages(plan, Object.fromEntries(analysis.asked), versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  form: {
    words: 'Paper form',
    endings: ['form.html', 'form.pdf', 'form.docx'],
    kinds: ['form.html', 'form.pdf', 'form.docx'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      const { formPages } = await import('../print/form-pages');
      return printed(formPages(plan, Object.fromEntries(analysis.asked), versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  codebook: {
    words: 'Codebook',
    endings: ['codebook.xlsx', 'codebook.html', 'codebook.pdf'],
    kinds: ['codebook.xlsx', 'codebook.html', 'codebook.pdf'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      if (kind.endsWith('xlsx'))
        return (await import('../sheets/codebook-workbook')).codebookWorkbook(
          plan,
          analysis,
          versionWords(version),
        );
      const { codebookPages } = await import('../print/codebook-pages');
      return printed(codebookPages(plan, analysis, versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  'route-book': {
    words: 'Route book',
    endings: ['routes.html', 'routes.pdf'],
    kinds: ['routes.html', 'routes.pdf'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      const { routeBookPages } = await import('../print/route-book');
      return printed(routeBookPages(plan, analysis, versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
} as const satisfies Readonly<Record<string, FileFormat>>;
