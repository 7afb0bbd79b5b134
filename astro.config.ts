/** Astro in server mode behind our own HTTP server (`server/main.mjs`). */
import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';
import { instrumentProgram } from './scripts/instrument.mjs';

/** What is bundled by itself, as two texts. */
const instrument = () => ({
  name: 'instrument',
  resolveId: (id: string) => (id === 'virtual:instrument' ? `\0${id}` : undefined),
  load: async (id: string) =>
    id === '\0virtual:instrument' ? `export default ${JSON.stringify(await instrumentProgram())}` : undefined,
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
    plugins: [instrument()],
    worker: { format: 'es', plugins: () => [instrument()] },
    build: { chunkSizeWarningLimit: 1500, assetsInlineLimit: 0 },
  },
});
