export { CLICK, clickDepths, countLinks, islandNumbers, NO_CLICK, NO_WAY, reaches, reachOf, routeTo } from './reach';
export type { Depths, LinkCounts, LinkGraph, Reach } from './reach';
