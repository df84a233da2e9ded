import { identify } from '../url';
import type { Identified } from '../url';
import { insideTest } from './inside';
import type { InsideSettings } from './inside';
import { patternTest } from './pattern';

/** The settings that decide what belongs to a site and what of it is fetched. */
export interface ScopeSettings extends InsideSettings {
  /** When any are given, only addresses that match one of them are fetched. */
  include: readonly string[];
  exclude: readonly string[];
  /** Names of query parameters that do not tell pages apart. */
  dropParameters: readonly string[];
  sortParameters: boolean;
}

export interface PatternAnswer {
  keeps: boolean;
  /** The pattern that decided; null when none applies. */
  pattern: string | null;
}

export interface Scope {
  /** Whether an address belongs to the site. */
  inside: (address: string) => boolean;
  /** Whether the patterns let an address be fetched: excluding ones go before including ones. */
  keeps: (address: string) => PatternAnswer;
  /** As `identify`, with the parameter rules of the site. */
  identify: (href: string, base?: string) => Identified | null;
}

const tests = (patterns: readonly string[]) => patterns.map((pattern) => ({ pattern, test: patternTest(pattern) }));

/** Makes the tests of a site's scope. */
export function scopeOf(settings: ScopeSettings): Scope {
  const exclude = tests(settings.exclude);
  const include = tests(settings.include);
  return {
    inside: insideTest(settings),
    keeps: (address) => {
      const out = exclude.find(({ test }) => test(address));
      if (out) return { keeps: false, pattern: out.pattern };
      const into = include.find(({ test }) => test(address));
      return { keeps: include.length === 0 || into !== undefined, pattern: into?.pattern ?? null };
    },
    identify: withParameterRules(settings),
  };
}

/** The name of a parameter as it is written between `&` and `=`, escapes resolved where they can be. */
function nameOf(parameter: string): string {
  const end = parameter.indexOf('=');
  const name = (end < 0 ? parameter : parameter.slice(0, end)).replaceAll('+', ' ');
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}

/** Drops and sorts query parameters as the site says; all else of the address stays as it is. */
export function applyParameterRules(
  address: string,
  { dropParameters, sortParameters }: Pick<ScopeSettings, 'dropParameters' | 'sortParameters'>,
): string {
  const at = address.indexOf('?');
  if (at < 0 || (!sortParameters && dropParameters.length === 0)) return address;
  const written = address.slice(at + 1).split('&');
  const kept = dropParameters.length ? written.filter((one) => !dropParameters.includes(nameOf(one))) : written;
  if (sortParameters) {
    // Equal names keep their order, which may carry meaning.
    const named = kept.map((one) => [nameOf(one), one] as const);
    named.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
    named.forEach(([, one], i) => (kept[i] = one));
  }
  return kept.length ? `${address.slice(0, at)}?${kept.join('&')}` : address.slice(0, at);
}

function withParameterRules(settings: ScopeSettings): Scope['identify'] {
  if (!settings.sortParameters && settings.dropParameters.length === 0) return identify;
  return (href, base) => {
    const found = identify(href, base);
    return found && { ...found, address: applyParameterRules(found.address, settings) };
  };
}
