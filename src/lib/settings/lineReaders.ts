/** How the settings that are lists are read, line by line. */
import { parseOverride } from '$core/settings';
import { patternTest } from '$core/scope';
import { identify } from '$core/url';

/** Reads one line; a string is what is wrong with it. */
export type LineReader = (line: string) => { value: unknown } | string;

export const anAddress: LineReader = (line) => {
  const found = identify(line);
  return found ? { value: found.address } : `“${line}” is not a URL.`;
};
export const aHost: LineReader = (line) => {
  const host = line
    .toLowerCase()
    .replace(/^https?:\/\//, '')
    .replace(/\/$/, '');
  return identify(`https://${host}/`) && !/[/?#\s@]/.test(host) ? { value: host } : `“${line}” is not a host.`;
};
export const aPattern: LineReader = (line) => {
  patternTest(line);
  return { value: line };
};
export const anOverride: LineReader = (line) => {
  const override = parseOverride(line);
  return override ? { value: override } : `“${line}” is not of the form host=address:port.`;
};
export const aSection: LineReader = (line) => {
  const [, pattern, name] = /^(.*\S)\s*=\s*([^=]+)$/.exec(line) ?? [];
  return pattern ? { value: { pattern, name: name.trim() } } : `“${line}” is not of the form pattern = name.`;
};
export const aSubnet: LineReader = (line) =>
  /^([\d.]+|[\da-f:.]*:[\da-f:.]*)(\/\d{1,3})?$/i.test(line)
    ? { value: line }
    : `“${line}” is no IP address or subnet, such as 192.0.2.0/24.`;
export const asIs: LineReader = (line) => ({ value: line });
