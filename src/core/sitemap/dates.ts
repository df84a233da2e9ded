/** Dates as the W3C profile of ISO 8601 writes them (https://www.w3.org/TR/NOTE-datetime). */

const form = /^(\d{4})(?:-(\d\d)(?:-(\d\d)(?:T(\d\d):(\d\d)(?::(\d\d)(?:\.(\d+))?)?(Z|[+-]\d\d:\d\d))?)?)?$/;

/**
 * Reads a year, a month, a day, or a day with a time and its zone.
 * @returns milliseconds since 1970 of its beginning; null when it is no such date
 */
export function readW3cDate(text: string): number | null {
  const found = form.exec(text);
  if (!found) return null;
  const [year, month, day, hour, minute, second] = [1, 2, 3, 4, 5, 6].map((part, at) =>
    found[part] === undefined ? (at === 1 || at === 2 ? 1 : 0) : Number(found[part]),
  );
  const zone = found[8] ?? 'Z';
  const [zoneHour, zoneMinute] = zone === 'Z' ? [0, 0] : [Number(zone.slice(1, 3)), Number(zone.slice(4))];
  const isInRange =
    month >= 1 &&
    month <= 12 &&
    day >= 1 &&
    hour < 24 &&
    minute < 60 &&
    second < 60 &&
    zoneHour < 24 &&
    zoneMinute < 60;
  if (!isInRange) return null;
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  if (date.getUTCDate() !== day) return null;
  const offset = (zoneHour * 60 + zoneMinute) * (zone.startsWith('-') ? -1 : 1);
  return date.setUTCHours(hour, minute - offset, second);
}
