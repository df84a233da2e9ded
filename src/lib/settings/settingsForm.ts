/** Settings as what stands in the fields of their form, and back again. */
import type { CrawlSettings } from '$core/settings';
import { readStartAddress } from '$core/url';
import { allFields } from './settingsFields';
import type { Field } from './settingsFields';

/** What stands in the fields, by name. */
export type Typed = Record<string, string>;
/** What is wrong, by field. */
export type Faults = Record<string, string>;

type Nested = Record<string, unknown>;
function valueOf(settings: Nested, name: string): unknown {
  return name.split('.').reduce<unknown>((at, part) => (at as Nested)[part], settings);
}
function setValue(settings: Nested, name: string, value: unknown): void {
  const path = name.split('.');
  const last = path.pop()!;
  let at = settings;
  for (const part of path) at = (at[part] ??= {}) as Nested;
  at[last] = value;
}

/** Settings as they stand in the fields. */
export function typedOf(settings: CrawlSettings): Typed {
  const typed: Typed = { start: settings.start };
  for (const field of allFields) {
    const value = valueOf(settings as unknown as Nested, field.name);
    if (field.type === 'flag') typed[field.name] = value ? 'on' : '';
    else if (field.type === 'lines')
      typed[field.name] = (value as never[]).map((one) => (field.write ? field.write(one) : String(one))).join('\n');
    else typed[field.name] = value === null ? '' : String(value);
  }
  return typed;
}

function readField(field: Field, text: string, faults: Faults): unknown {
  if (field.type === 'flag') return text === 'on';
  if (field.type === 'lines')
    return text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean)
      .flatMap((line) => {
        const read = field.read(line);
        if (typeof read !== 'string') return [read.value];
        faults[field.name] ??= read;
        return [];
      });
  if (field.type !== 'number') return text || undefined;
  // Left empty, a number has its default.
  if (text === '') return undefined;
  const value = Number(text.replaceAll(/[\s,]/g, ''));
  const [low, high] = field.range;
  if (value >= low && value <= high && (!field.whole || Number.isInteger(value))) return value;
  faults[field.name] =
    `Give a ${field.whole ? 'whole ' : ''}number from ${low.toLocaleString('en')} to ${high.toLocaleString('en')}.`;
  return undefined;
}

/** A folder as settings have it: `/…/`, or '' for the whole site. */
export function folderOf(typed: string): string {
  const folder = `/${typed.trim()}/`.replace(/\/+/g, '/');
  return folder === '/' ? '' : folder;
}

export type ReadSettings = { ok: true; settings: CrawlSettings } | { ok: false; faults: Faults; typed: Typed };

/**
 * Reads the fields of a form; what is wrong is said field by field, and what was typed is kept.
 * @param parse fills in defaults and checks what fields cannot
 */
export function readSettingsForm(form: FormData, parse: (given: unknown) => ParsedSettings): ReadSettings {
  const text = (name: string) => String(form.get(name) ?? '').trim();
  const typed: Typed = { start: text('start') };
  const faults: Faults = {};
  const given: Nested = {};
  const start = readStartAddress(typed.start);
  if (start.ok) given.start = start.address;
  else faults.start = start.message;
  for (const field of allFields) {
    typed[field.name] = text(field.name);
    setValue(given, field.name, readField(field, typed[field.name], faults));
  }
  const folder = folderOf(typed.folder);
  given.folder = folder;
  if (start.ok && folder && !new URL(start.address).pathname.startsWith(folder))
    faults.folder = `The start address is not under ${folder}.`;
  if (Object.keys(faults).length) return { ok: false, faults, typed };
  const parsed = parse(given);
  if (parsed.success) return { ok: true, settings: parsed.data };
  for (const { path, message } of parsed.error.issues) faults[fieldOfPath(path)] ??= `It ${message}.`;
  return { ok: false, faults, typed };
}

/** What Zod's safeParse answers, as far as it is needed here; the browser need not load Zod for that. */
export type ParsedSettings =
  | { success: true; data: CrawlSettings }
  | { success: false; error: { issues: { path: PropertyKey[]; message: string }[] } };

function fieldOfPath(path: readonly PropertyKey[]): string {
  const names = path.map(String);
  return allFields.find(({ name }) => name === names.slice(0, name.split('.').length).join('.'))?.name ?? 'start';
}
