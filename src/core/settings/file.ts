import { z } from '../schema';
import { settingsSchema } from './settings';
import type { CrawlSettings } from './settings';

/** Settings as a file, to be read in elsewhere. Secrets and imported lists are not among them. */
export const settingsFile = (settings: CrawlSettings): string =>
  `${JSON.stringify({ edgemapSettings: settings }, null, 2)}\n`;

/** `lists` are addresses that files of earlier versions hold among their settings. */
export type ReadFile = { ok: true; settings: CrawlSettings; lists: string[] } | { ok: false; message: string };

const listsSchema = z.object({ lists: z.array(z.string().max(8192)).max(1_000_000).default([]) });

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
  const lists = listsSchema.safeParse(settings);
  if (parsed.success) return { ok: true, settings: parsed.data, lists: lists.data?.lists ?? [] };
  const { path, message } = parsed.error.issues[0];
  return { ok: false, message: `The file cannot be used: ${path.join('.')}: ${message}.` };
}
