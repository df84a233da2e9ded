/** Times as logs write them. */

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
/** Midnight of the last day that was read, with its zone: lines of one day follow each other. */
let last = { text: '', midnight: 0 };

function midnightOf(day: string, zone: string): number {
  const text = day + zone;
  if (last.text === text) return last.midnight;
  const month = months.indexOf(day.slice(3, 6).toLowerCase());
  const offset = /^([+-])(\d\d):?(\d\d)$/.exec(zone);
  const seconds = offset ? (Number(offset[2]) * 3600 + Number(offset[3]) * 60) * (offset[1] === '-' ? -1 : 1) : 0;
  const midnight = Date.UTC(Number(day.slice(7)), month, Number(day.slice(0, 2))) / 1000 - seconds;
  last = { text, midnight: month < 0 ? NaN : midnight };
  return last.midnight;
}

/**
 * Reads `10/Oct/2026:13:55:36 +0200`, a W3C or ISO 8601 time, or a number of seconds or milliseconds.
 * @returns seconds since 1970; null when it is none of them
 */
export function parseTime(text: string): number | null {
  if (text.charCodeAt(2) === 47) {
    const seconds = Number(text.slice(12, 14)) * 3600 + Number(text.slice(15, 17)) * 60 + Number(text.slice(18, 20));
    const time = midnightOf(text.slice(0, 11), text.slice(21)) + seconds;
    return Number.isFinite(time) ? time : null;
  }
  const number = Number(text);
  if (text !== '' && Number.isFinite(number)) return number > 1e11 ? Math.floor(number / 1000) : Math.floor(number);
  const time = Date.parse(text);
  return Number.isFinite(time) ? Math.floor(time / 1000) : null;
}
