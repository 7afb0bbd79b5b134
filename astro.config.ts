/** Astro in server mode behind our own HTTP server (`server/main.mjs`). */
import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';
import { programOf } from './scripts/programs.mjs';

/** What respondents run is bundled by itself; each program is two texts. */
const programs = () => ({
  name: 'programs',
  resolveId: (id: string) => (/^virtual:(instrument|respondent)$/.test(id) ? `\0${id}` : undefined),
  async load(id: string) {
    const name = /^\0virtual:(instrument|respondent)$/.exec(id)?.[1] as
      'instrument' | 'respondent' | undefined;
    return name === undefined ? undefined : `export default ${JSON.stringify(await programOf(name))}`;
  },
});

/** Large libraries that are taken whole: next to nothing of them could be left out, and looking for it took most of a build. */
const WHOLE = /[\\/]node_modules[\\/](elkjs|exceljs|pdfmake|docx|mammoth)[\\/]/;
const whole = () => ({
  name: 'whole',
  transform: (_: string, id: string) =>
    WHOLE.test(id) ? { moduleSideEffects: 'no-treeshake' as const } : undefined,
});

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  // Our middleware checks where a request comes from; Astro's own check does not know the port.
  security: { checkOrigin: false },
  devToolbar: { enabled: false },
  image: { endpoint: { route: '/_image', entrypoint: './src/server/no-pictures.ts' } },
  build: { inlineStylesheets: 'never' },
  experimental: {
    // The framework's own few lines that start an island are let through by their hashes, and nothing else in a page.
    csp: {
      directives: [
        "default-src 'self'",
        "img-src 'self' data: blob:",
        // Pictures that are drawn here have their fonts inside.
        "font-src 'self' data:",
        "connect-src 'self'",
        "worker-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
      ],
    },
  },
  vite: {
    plugins: [programs(), whole()],
    worker: { format: 'es', plugins: () => [programs(), whole()] },
    build: { chunkSizeWarningLimit: 1500, assetsInlineLimit: 0, reportCompressedSize: false },
  },
});
