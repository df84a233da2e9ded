/** The texts of timelines, their notes, and of crawls that begin by themselves. */
import type { Schedule } from '$core/schedule';
import type { TrendNumber } from '$core/trend';
import { counted, number } from '../shell/words';

const numbers: Record<TrendNumber, string> = {
  known: 'known addresses',
  indexable: 'indexable pages',
  noRoute: 'indexable pages without a route',
  findings: 'findings',
  orphans: 'orphan pages',
  brokenLinks: 'links to broken pages',
  medianDepth: 'median depth',
  topTen: 'share held by the ten richest pages',
};
const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
const every: Record<Schedule['every'], string> = { day: 'every day', week: 'every week', month: 'every month' };

export const texts = {
  show: 'Show',
  byVerdict: 'pages by verdict',
  numberName: (name: TrendNumber) => numbers[name],
  savedSelections: 'Saved selections',
  countedSoFar: (done: number, all: number) => `${done} of ${all} crawls counted`,
  linkSelection: (name: string) => `${name} (links)`,
  overCrawls: (name: string, crawls: number) => `${name}, over ${counted(crawls, 'crawl')}`,
  barOf: (at: string, value: string) => `${at}: ${value}`,
  notCounted: 'not counted: an earlier version of Edge Map analysed this crawl',
  percent: (part: number) => `${(100 * part).toFixed(1)}%`,
  rose: (name: string, before: string, after: string, at: string) =>
    `${name.charAt(0).toUpperCase()}${name.slice(1)} rose from ${before} to ${after} in the crawl of ${at}.`,
  fell: (name: string, before: string, after: string, at: string) =>
    `${name.charAt(0).toUpperCase()}${name.slice(1)} fell from ${before} to ${after} in the crawl of ${at}.`,
  pagesOf: (verdict: string) => `${verdict.toLowerCase()} pages`,
  noSpike: 'No crawl stands out from the others.',
  oneCrawl: 'There is one crawl so far. Crawl the site again to see what moves.',
  notes: 'Notes',
  note: (day: string, text: string) => `${day}: ${text}`,
  noNotes: 'No notes yet. A note such as “relaunch” stands on every trend of the site.',
  day: 'Date',
  words: 'Note',
  wordsExample: 'Relaunch',
  addNote: 'Add note',
  changeNote: 'Save note',
  edit: 'Edit',
  remove: 'Remove',
  cancel: 'Cancel',
  noteSaved: 'The note is saved.',
  noteRemoved: 'The note is removed.',
  coming: 'Coming crawls',
  noSchedule: 'This site is crawled when somebody asks for it.',
  isPaused: 'Paused: nothing is due.',
  every: 'Repeat',
  everyName: (of: Schedule['every']) => every[of],
  weekday: 'On',
  weekdayName: (day: number) => weekdays[day],
  dayOfMonth: 'On day',
  lastDay: 'the last',
  at: 'At',
  zone: 'Time zone',
  pause: 'Pause',
  goOn: 'Go on',
  saveSchedule: 'Save',
  stopSchedule: 'Stop',
  scheduleSaved: 'The schedule is saved.',
  scheduleStopped: 'This site is no longer crawled by itself.',
  scheduleMeans:
    'With the settings of the site, by whichever worker is free. A run that was missed is caught up once; none begins while another crawl of the site goes on.',
  kept: 'Kept crawls',
  keepHint: 'Older ones are deleted when a crawl ends, which frees their space. Pinned ones stay.',
  keep: 'Keep the newest',
  keepAll: 'all',
  saveKeep: 'Save',
  keepSaved: (deleted: number) =>
    deleted ? `Saved. ${counted(deleted, 'crawl')} ${deleted === 1 ? 'is' : 'are'} deleted.` : 'Saved.',
  keepAsk: (n: number) => `This deletes ${counted(n, 'crawl')} now. Go on?`,
  pin: 'Pin',
  pinned: 'Pinned',
  pinOf: (id: number) => `Pin crawl ${id}`,
  crawlRow: (id: number, at: string, known: unknown) => `${id} · ${at} · ${number(known)} URLs`,
};
