/** Times as logs write them. */

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** The number that two digits write. */
const two = (text: string, at: number) => 10 * text.charCodeAt(at) + text.charCodeAt(at + 1) - 528;

/** The last day that was read: lines of one day follow each other. */
let last = { day: '', midnight: 0 };

/** The beginning of a day such as `10/Oct/2026`, in seconds since 1970; NaN when there is no such month. */
export function dayStart(day: string): number {
  if (day !== last.day) {
    const month = months.indexOf(day.slice(3, 6).toLowerCase());
    const midnight = month < 0 ? NaN : Date.UTC(Number(day.slice(7)), month, two(day, 0)) / 1000;
    last = { day, midnight };
  }
  return last.midnight;
}

/** Seconds by which a zone such as `+0200` is ahead of UTC. */
function zoneSeconds(text: string, at: number): number {
  const sign = text.charCodeAt(at);
  if (sign !== 43 && sign !== 45) return 0;
  const seconds = two(text, at + 1) * 3600 + two(text, at + (text.charCodeAt(at + 3) === 58 ? 4 : 3)) * 60;
  return sign === 45 ? -seconds : seconds;
}

/**
 * Reads `10/Oct/2026:13:55:36 +0200`, a W3C or ISO 8601 time, or a number of seconds or milliseconds.
 * @returns seconds since 1970; null when it is none of them
 */
export function parseTime(text: string): number | null {
  if (text.charCodeAt(2) === 47) {
    const seconds = two(text, 12) * 3600 + two(text, 15) * 60 + two(text, 18);
    const time = dayStart(text.slice(0, 11)) + seconds - zoneSeconds(text, 21);
    return Number.isFinite(time) ? time : null;
  }
  const number = Number(text);
  if (text !== '' && Number.isFinite(number)) return number > 1e11 ? Math.floor(number / 1000) : Math.floor(number);
  const time = Date.parse(text);
  return Number.isFinite(time) ? Math.floor(time / 1000) : null;
}
