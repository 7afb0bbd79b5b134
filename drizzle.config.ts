/** Where `npm run migrations` reads the tables and writes migrations. */
import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: './src/store/schema.ts',
  out: './src/store/migrations',
});
