/** Astro in server mode behind our own HTTP server (`server/main.mjs`). */
import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  // Our middleware checks where a request comes from; Astro's own check does not know the port.
  security: { checkOrigin: false },
  devToolbar: { enabled: false },
  vite: { worker: { format: 'es' }, build: { chunkSizeWarningLimit: 1500 } },
});
