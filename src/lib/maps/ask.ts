/** What is asked of the worker that draws maps, and what it answers. */
import type { ColumnName } from '$core/facts';
import type { Category, Edges, Flow, Said, Scene } from '$core/maps';
import type { Reader } from '$core/reach';
import { askWorker } from '../worker';

export const mapPictures = ['', 'routes', 'folders', 'links'] as const;
export type MapPicture = (typeof mapPictures)[number];

export interface MapState {
  picture: MapPicture;
  reader: Reader;
  /** The fact that colours tell, where they do not tell which pages are marked. */
  colour: ColumnName;
  /** The selection of the pages that are marked; '' for none. */
  marked: string;
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

/** A page, or a group of pages, of the picture of links. */
export interface NetNode {
  id: string;
  /** -1 for a group. */
  page: number;
  name: string | null;
  pages: number;
  select: string;
  x: number;
  y: number;
  radius: number;
  category: number;
  parts: number[];
  /** An index of the verdicts; of a group that of its first page. */
  verdict: number;
  isLost: boolean;
  isGate: boolean;
  isStart: boolean;
  isDimmed: boolean;
  community: number;
}

/** The graph of links as it was laid out, in units of its own. */
export interface Net {
  nodes: NetNode[];
  /** How many pages they are. */
  pages: number;
  edges: Edges;
  /** Nodes that nothing joins to the others. */
  apart: { x: number; y: number; width: number; height: number; nodes: number } | null;
  /** Communities of several pages, the largest first, with the address that gathers most links in each. */
  communities: { number: number; pages: number; around: string }[];
  /** Pages so many link to that the links to them are not drawn. */
  everywhere: number;
}

export interface MapDrawn {
  scene: Scene;
  /** Of the picture of links, which has no boxes. */
  net: Net | null;
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

/** A page that links to another, or that it links to. */
export interface NeighbourTold {
  page: number;
  address: string;
  name: string;
  verdict: number;
  isMutual: boolean;
  isEverywhere: boolean;
}

/** What is around a page. */
export interface AroundTold {
  page: number;
  out: NeighbourTold[];
  in: NeighbourTold[];
  /** Pages that lose every route when it goes. */
  hanging: number[];
  /** The pages of a shortest way to it, where one was asked for; empty when there is none. */
  way: { page: number; name: string }[] | null;
}

export type MapQuestion =
  | { ask: 'begin'; base: string }
  | { ask: 'draw'; state: MapState }
  | { ask: 'flows' }
  | { ask: 'page'; page: number }
  | { ask: 'around'; address: string; from: string; reader: Reader }
  | { ask: 'find'; text: string };
export type MapAnswer =
  | { to: 'begin' }
  | { to: 'draw'; drawn: MapDrawn }
  | { to: 'flows'; flows: Flow[] }
  | { to: 'page'; told: PageTold }
  | { to: 'around'; around: AroundTold | null }
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
