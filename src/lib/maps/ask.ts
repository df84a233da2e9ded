/** What is asked of the worker that draws maps, and what it answers. */
import type { ColumnName } from '$core/facts';
import type { Category, Flow, Said, Scene } from '$core/maps';
import type { Reader } from '$core/reach';
import { askWorker } from '../worker';

export const mapPictures = ['', 'routes', 'folders'] as const;
export type MapPicture = (typeof mapPictures)[number];

export interface MapState {
  picture: MapPicture;
  reader: Reader;
  /** A fact, or `selection` for whether pages are selected. */
  colour: ColumnName | 'selection';
  /** A fact of numbers; '' for one size. */
  size: ColumnName | '';
  /** Draws these pages alone; '' for all. */
  only: string;
  /** These pages are selected; '' for none. */
  select: string;
  /** The box that is looked into; '' for none. */
  item: string;
  /** The page with which routes begin; '' for the start. */
  from: string;
  /** Trees as nodes and lines, as far as they can be read, or whole. */
  shape: 'nodes' | 'whole';
  width: number;
  height: number;
}

export interface MapDrawn {
  scene: Scene;
  categories: Category[];
  isScale: boolean;
  said: Said;
  /** The boxes above the one that is looked into, from the outermost on. */
  crumbs: { item: string; name: string | null }[];
  /** Numbers of the pages that are drawn as dots and are not selected. */
  dimmed: number[];
}

/** What is told of a page that is pointed at. */
export interface PageTold {
  address: string;
  depth: number;
  share: number;
  verdict: string;
  linking: number;
}

export type MapQuestion =
  | { ask: 'begin'; base: string }
  | { ask: 'draw'; state: MapState }
  | { ask: 'flows' }
  | { ask: 'page'; page: number }
  | { ask: 'find'; text: string };
export type MapAnswer =
  | { to: 'begin' }
  | { to: 'draw'; drawn: MapDrawn }
  | { to: 'flows'; flows: Flow[] }
  | { to: 'page'; told: PageTold }
  | { to: 'find'; found: { address: string; item: string; box: string }[] };

/** Starts the worker that draws the maps of a crawl. */
export function openMaps(base: string) {
  const worker = askWorker<MapQuestion, MapAnswer>(
    new Worker(new URL('./mapWorker.ts', import.meta.url), { type: 'module' }),
  );
  // Where it cannot begin, what is asked next fails too.
  worker.ask({ ask: 'begin', base }).catch(() => {});
  return worker;
}
export type Maps = ReturnType<typeof openMaps>;
