import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'mysql',
  schema: './src/server/schema.ts',
  out: './drizzle',
  casing: 'snake_case',
});
