import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'mysql',
  schema: './src/server/database/schema.ts',
  out: './drizzle',
  casing: 'snake_case',
});
