/** Hits of a log, counted by what was asked for. */
import type { LogHit } from './request';

/** Names by which the crawlers of large search engines say who they are; others may claim to be them. */
const crawlers =
  /googlebot|bingbot|duckduckbot|yandex(?:bot|images|mobilebot)|baiduspider|applebot|slurp|seznambot|petalbot|qwant(?:bot|ify)|searchbot/i;

/** As many agents are remembered; there are a few thousand in most logs. */
const MAX_AGENTS = 50_000;

/**
 * Makes a test whether a search crawler asked.
 * @param isTheirs whether an IP address belongs to one, where that is known; else the agent alone decides
 */
export function crawlerTest(isTheirs: ((client: string) => boolean) | null = null): (hit: LogHit) => boolean {
  const known = new Map<string, boolean>();
  return ({ agent, client }) => {
    let claims = known.get(agent);
    if (claims === undefined) {
      if (known.size >= MAX_AGENTS) known.clear();
      known.set(agent, (claims = crawlers.test(agent)));
    }
    return claims && (isTheirs === null || isTheirs(client));
  };
}

const DAY = 86_400;
/** A day and a status as one number: hits are counted by both together. */
export const cellOf = (time: number | null, status: number | null): number =>
  (time === null ? 0 : Math.floor(time / DAY)) * 1000 + (status ?? 0);
const dayOfCell = (cell: number): number => Math.floor(cell / 1000);
const statusOfCell = (cell: number): number => cell % 1000;

/** How often one address was asked for. */
export interface Hits {
  hits: number;
  crawlerHits: number;
  /** Seconds since 1970; −1 when no time was read. */
  lastHit: number;
  /** Cells ({@link cellOf}) and their hits, in turn. */
  cells: number[];
}

export const noHits = (): Hits => ({ hits: 0, crawlerHits: 0, lastHit: -1, cells: [] });

/** Lines of a log are in the order of time: the cell of a hit is nearly always among the last. */
const LOOK_BACK = 16;

/** Counts a hit. */
export function addHit(hits: Hits, { time, status }: LogHit, isCrawler: boolean): void {
  hits.hits++;
  if (isCrawler) hits.crawlerHits++;
  if (time !== null && time > hits.lastHit) hits.lastHit = time;
  const cell = cellOf(time, status);
  const { cells } = hits;
  for (let at = cells.length - 2; at >= 0 && at >= cells.length - LOOK_BACK; at -= 2)
    if (cells[at] === cell) {
      cells[at + 1]++;
      return;
    }
  cells.push(cell, 1);
}

/** The hits that did not end in an error of the server or of who asked; those without a status are taken for good. */
export function answeredHits({ cells }: Pick<Hits, 'cells'>): number {
  let answered = 0;
  for (let at = 0; at < cells.length; at += 2) if (statusOfCell(cells[at]) < 400) answered += cells[at + 1];
  return answered;
}

/** The hits of one address by status and by day, as a dossier shows them. */
export interface HitCounts {
  /** Status 0 is unknown. */
  byStatus: { status: number; hits: number }[];
  /** Days as `2026-10-02` in UTC, ascending; hits without a time are left out. */
  byDay: { day: string; hits: number }[];
}

/** Adds cells ({@link cellOf}) up, in whatever order they come. */
export function countCells(cells: ArrayLike<number>): HitCounts {
  const statuses = new Map<number, number>();
  const days = new Map<number, number>();
  for (let at = 0; at < cells.length; at += 2) {
    const [status, day, hits] = [statusOfCell(cells[at]), dayOfCell(cells[at]), cells[at + 1]];
    statuses.set(status, (statuses.get(status) ?? 0) + hits);
    if (day > 0) days.set(day, (days.get(day) ?? 0) + hits);
  }
  return {
    byStatus: [...statuses].sort(([a], [b]) => a - b).map(([status, hits]) => ({ status, hits })),
    byDay: [...days]
      .sort(([a], [b]) => a - b)
      .map(([day, hits]) => ({ day: new Date(day * DAY * 1000).toISOString().slice(0, 10), hits })),
  };
}
