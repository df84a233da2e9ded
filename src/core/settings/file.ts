import { settingsSchema } from './settings';
import type { CrawlSettings } from './settings';

/** Settings as a file, to be read in elsewhere. Secrets are not among them. */
export const settingsFile = (settings: CrawlSettings): string =>
  `${JSON.stringify({ edgemapSettings: settings }, null, 2)}\n`;

export type ReadFile = { ok: true; settings: CrawlSettings } | { ok: false; message: string };

/** The reverse of {@link settingsFile}; settings that are missing get their defaults. */
export function readSettingsFile(text: string): ReadFile {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return { ok: false, message: 'The file is not JSON. Choose one that Edge Map has exported.' };
  }
  const settings = (given as { edgemapSettings?: unknown } | null)?.edgemapSettings;
  if (!settings) return { ok: false, message: 'The file holds no settings of Edge Map.' };
  const parsed = settingsSchema.safeParse(settings);
  if (parsed.success) return { ok: true, settings: parsed.data };
  const { path, message } = parsed.error.issues[0];
  return { ok: false, message: `The file cannot be used: ${path.join('.')}: ${message}.` };
}
