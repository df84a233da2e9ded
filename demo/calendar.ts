import { events } from './content';
import { link, list, ORIGIN, paragraphs } from './template';
import type { Sheet } from './template';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** A month of the calendar, which goes on for ever in both directions; null when the address is not a month. */
export function calendarPage({ pathname }: URL): Sheet | null {
  const found = /^\/events\/(\d{4})\/(\d{2})\/$/.exec(pathname);
  const [year, month] = [Number(found?.[1]), Number(found?.[2])];
  if (!found || month < 1 || month > 12) return null;
  const path = (months: number) => {
    const at = year * 12 + month - 1 + months;
    return `/events/${Math.floor(at / 12)}/${String((at % 12) + 1).padStart(2, '0')}/`;
  };
  const past = year * 12 + month < 2026 * 12 + 11;
  const event = events[(year + month) % events.length];
  return {
    path: pathname,
    title: `Events in ${MONTHS[month - 1]} ${year}`,
    canonical: ORIGIN + pathname,
    head: past ? ['<meta name="robots" content="noindex">'] : [],
    trail: [['/events/', 'What’s on']],
    main: [
      paragraphs(year === 2026 && month >= 10 ? link(`/events/${event.slug}`, event.title) : 'Nothing yet.'),
      list([link(path(-1), 'Month before'), link(path(1), 'Next month')], 'pager'),
    ].join('\n'),
  };
}
