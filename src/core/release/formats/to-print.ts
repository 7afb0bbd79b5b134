/** Files to read, to print and to edit: script, form, codebook, route book and forecast. */
import type { FormatWriter, Written } from '../format-types';
import type { Pages } from '../print/pages';
import { versionWords } from '../version-words';
import type { FormatName } from './known';
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
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      const { scriptPages } = await import('../print/script-pages');
      return printed(scriptPages(plan, Object.fromEntries(analysis.asked), versionWords(version)), kind);
    },
    losses: NONE,
  },
  form: {
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      const { formPages } = await import('../print/form-pages');
      return printed(formPages(plan, Object.fromEntries(analysis.asked), versionWords(version)), kind);
    },
    losses: NONE,
  },
  codebook: {
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
    losses: NONE,
  },
  'route-book': {
    write: async ({ document, version }, kind) => {
      const { plan, analysis } = preparedFor(document);
      const { routeBookPages } = await import('../print/route-book');
      return printed(routeBookPages(plan, analysis, versionWords(version)), kind);
    },
    losses: NONE,
  },
  forecast: {
    write: async ({ document, version }, kind) => {
      const { plan } = preparedFor(document);
      const { forecastCsv, forecastWorkbook } = await import('../sheets/forecast-tables');
      if (kind.endsWith('csv')) return forecastCsv(plan);
      if (kind.endsWith('xlsx')) return forecastWorkbook(plan, versionWords(version));
      const { forecastPages } = await import('../print/forecast-pages');
      return printed(forecastPages(plan, versionWords(version)), kind);
    },
    losses: NONE,
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;
