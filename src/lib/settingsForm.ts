import { parseOverride, settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { identify, readStartAddress } from '$core/url';

/** The fields of the form as they were typed. */
export type TypedSettings = Record<(typeof fields)[number], string>;
const fields = [
  'start',
  'limit',
  'depth',
  'connections',
  'robots',
  'sitemaps',
  'overrides',
  'acceptCertificates',
] as const;
export type SettingsFaults = Partial<Record<(typeof fields)[number], string>>;

export type ReadSettings =
  { ok: true; settings: CrawlSettings } | { ok: false; faults: SettingsFaults; typed: TypedSettings };

const lines = (text: string) => text.split('\n').map((line) => line.trim()).filter(Boolean); // prettier-ignore

/** Reads the form of a new crawl; what is wrong is said field by field, and what was typed is kept. */
export function readSettingsForm(form: FormData): ReadSettings {
  const typed = Object.fromEntries(fields.map((name) => [name, String(form.get(name) ?? '').trim()])) as TypedSettings;
  const faults: SettingsFaults = {};
  const whole = (name: 'limit' | 'depth' | 'connections', low: number, high: number): number | undefined => {
    if (typed[name] === '') return undefined;
    const value = Number(typed[name].replaceAll(/[\s,]/g, ''));
    if (Number.isInteger(value) && value >= low && value <= high) return value;
    faults[name] = `Give a whole number from ${low.toLocaleString('en')} to ${high.toLocaleString('en')}.`;
    return undefined;
  };
  const start = readStartAddress(typed.start);
  if (!start.ok) faults.start = start.message;
  const sitemaps = lines(typed.sitemaps).map((line) => {
    const address = identify(line)?.address;
    if (!address) faults.sitemaps = `“${line}” is not a URL.`;
    return address ?? '';
  });
  const overrides = lines(typed.overrides).flatMap((line) => {
    const override = parseOverride(line);
    if (!override) faults.overrides = `“${line}” is not of the form host=address:port.`;
    return override ?? [];
  });
  const given = {
    start: start.ok ? start.address : '',
    limit: whole('limit', 1, 10_000_000),
    depth: whole('depth', 0, 10_000),
    connections: whole('connections', 1, 64),
    robots: typed.robots === 'look-past' ? 'look-past' : 'obey',
    sitemaps,
    overrides,
    acceptCertificates: typed.acceptCertificates === 'on',
  };
  if (Object.keys(faults).length) return { ok: false, faults, typed };
  return { ok: true, settings: settingsSchema.parse(given) };
}
