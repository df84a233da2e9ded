import { factOf } from '$core/facts';
import type { ColumnName } from '$core/facts';
import type { Box, Category, Said } from '$core/maps';
import type { NetNode } from './ask';
import { counted, number, verdictLabel } from '../shell/words';

const share = (pages: number, of: number) => `${number(Math.round((100 * pages) / Math.max(1, of)))} %`;
const sectionName = (section: string | null) => (section === '/*' ? 'files in /' : section || 'no section');
const round = (value: number) => (Number.isInteger(value) ? number(value) : value.toPrecision(2));

export const texts = {
  loading: 'The map is being drawn …',
  failed: (why: string) => `The map could not be drawn: ${why} Load this page again.`,
  empty: 'Nothing is drawn.',
  nothing: 'No page to draw: choose another selection, or draw the whole site.',
  pageTitle: (host: string) => `Maps · ${host}`,
  map: 'Map',
  colour: 'Colour',
  size: 'Size',
  selectCategory: (name: string, pages: number) => `${number(pages)}: select ${name}`,
  sameSize: 'the same',
  selection: 'the selection',
  marked: 'Which pages have it',
  changes: [
    { colour: 'new', name: 'New since the crawl before', select: 'new' },
    { colour: 'changed', name: 'Changed since the crawl before', select: 'not same' },
  ],
  otherFacts: 'All facts',
  find: 'Find on the map',
  notFound: 'No address on the map has this in it.',
  table: 'As a table',
  picture: 'As a picture',
  whole: 'Whole',
  nodes: 'In rows',
  zoomIn: 'Larger',
  zoomOut: 'Smaller',
  only: 'Draw only the selection',
  all: 'Draw the whole site',
  reroot: 'Begin with the page that is open',
  fromStart: 'Begin with the start',
  showList: 'Show the list',
  hideList: 'Fold the list away',
  rest: 'all others',
  everything: 'All',
  start: 'start',
  noRoute: 'no route',
  unknown: 'unknown',
  clicks: (depth: number | null, isOpenEnded = false) =>
    depth === null ? texts.noRoute : depth === 0 ? texts.start : `${depth}${isOpenEnded ? ' and on' : ''}`,
  more: (groups: number) => `${number(groups)} more`,
  pages: (pages: number) => counted(pages, 'page'),
  label: (fact: ColumnName) => factOf(fact).label,
  keys: 'Arrow keys go from box to box, Enter opens one, Space selects its pages, Backspace goes back up.',
  netKeys:
    'Up and down choose a link, right follows it, left goes back, i turns to the links that lead here, z takes back a move, Shift with an arrow key moves the picture. Of groups, arrow keys go from one to the next, Enter opens one, Space selects its pages.',
  nodeName: ({ name, page }: NetNode) => (page >= 0 ? (name ?? '/') : sectionName(name)),
  /** The name of a node; files in the root are told by the page around which they are. */
  nodeLabel: (node: NetNode, around?: string): string =>
    node.page >= 0
      ? texts.nodeName(node)
      : node.name === '/*' && around
        ? texts.communityLabel(around, node.pages)
        : `${texts.nodeName(node)} ${number(node.pages)}`,
  communityLabel: (around: string, pages: number) => `around ${around} ${number(pages)}`,
  selectCommunity: (community: number) => `Select the pages of community ${community}`,
  apart: (nodes: number, hasGroups: boolean) =>
    `${hasGroups ? counted(nodes, 'group') : counted(nodes, 'page')} that nothing but menus joins to the others`,
  walk: 'Walk along links',
  way: (from: string, names: string[]) =>
    names.length > 0
      ? `${counted(names.length - 1, 'click')} from where the way begins: ${names.join(' › ')}`
      : `No links lead here from ${from}.`,
  wayFrom: 'Begin a way here',
  noWay: 'End the way',
  ifGone: (pages: number) => `Without it, ${counted(pages, 'page loses', 'pages lose')} every route`,
  noneHangs: 'Without it, all others keep a route',
  drawNear: 'Draw only clicks around:',
  nearby: (clicks: number) => `Draw only what is within ${counted(clicks, 'click')} of this page`,
  linksOf: (way: 'out' | 'in', links: number) =>
    way === 'out' ? `Links to ${number(links)}` : `Linked from ${number(links)}`,
  bothWays: 'There is a link back',
  noLinks: (way: 'out' | 'in') => (way === 'out' ? 'It links to no page of the site.' : 'No page links here.'),
  moreLinks: (links: number) => `${number(links)} more: see the dossier`,
  undoMove: 'Put back',
  withMenus: 'With menus’ links',
  withoutMenus: 'Without menus’ links',
  mutual: 'Both ways only',
  allWays: 'One way, too',
  columns: { box: 'Group', pages: 'Pages' },
  category: ({ value }: Category, by: ColumnName | null): string => {
    switch (value.is) {
      case 'marked':
        return 'has it';
      case 'unmarked':
        return 'has it not';
      case 'other':
        return texts.rest;
      case 'range':
        return value.to === null ? `${round(value.from)} and more` : `${round(value.from)} to below ${round(value.to)}`;
      case 'value':
        if (value.value === null) return by === 'section' ? 'no section' : texts.unknown;
        if (typeof value.value === 'boolean') return value.value ? 'yes' : 'no';
        if (by === 'verdict') return verdictLabel[value.value as keyof typeof verdictLabel];
        return String(value.value).replaceAll('_', ' ');
    }
  },
  box: ({ name, folded, isGate, isBare, pages }: Box): string =>
    [
      name || (folded ? texts.more(folded) : sectionName(null)),
      texts.pages(pages),
      ...(isGate ? ['a gate: all behind it hangs on it'] : []),
      ...(isBare ? ['a folder without a page of its own'] : []),
    ].join(' · '),
  /** What is written into a box, with how many pages it has where it does not stand for one. */
  named: (box: Box, isTree: boolean): string => {
    const [name] = texts.box(box).split(' · ');
    return !box.name && box.folded && isTree ? name : box.pages > 1 || !isTree ? `${name} ${number(box.pages)}` : name;
  },
  flow: (links: number) => counted(links, 'link'),
  told: (depth: number, pagesLinking: number, verdict: keyof typeof verdictLabel) =>
    `${depth < 0 ? 'no route' : counted(depth, 'click')} · ${counted(pagesLinking, 'page links', 'pages link')} · ${verdictLabel[verdict]}`,
  saidOfBands: ({ pages, sections, usual, lost, lostMost }: Said): string =>
    [
      `${counted(pages, 'page')} in ${counted(sections, 'section')}`,
      usual ? `, most of them (${share(usual.pages, pages)}) ${counted(usual.depth, 'click')} from the start.` : '.',
      lost && lostMost
        ? ` ${counted(lost, 'page has', 'pages have')} no route; ${number(lostMost.pages)} of them in ${sectionName(lostMost.section)}.`
        : ' Every page has a route.',
    ].join(''),
  saidOfRoutes: ({ pages, deepest, gate, paged, lost }: Said): string =>
    [
      `The longest of the shortest routes takes ${counted(Math.max(0, deepest), 'click')}.`,
      gate
        ? ` ${counted(gate.pages, 'page hangs', 'pages hang')} on ${gate.address} (${share(gate.pages, pages)}).`
        : '',
      paged.pages
        ? ` ${counted(paged.pages, 'page hangs', 'pages hang')} on ${counted(paged.parts, 'page')} of paging.`
        : '',
      lost ? ` ${counted(lost, 'page has', 'pages have')} no route and ${lost === 1 ? 'is' : 'are'} not drawn.` : '',
    ].join(''),
  saidOfFolders: ({ pages, filed }: Said): string =>
    filed.most
      ? `${counted(filed.pages, 'page is', 'pages are')} filed in another section than ${filed.pages === 1 ? 'its breadcrumb says' : 'their breadcrumbs say'}: ${number(filed.most.pages)} in ${sectionName(filed.most.section)}, which ${filed.most.pages === 1 ? 'says it belongs' : 'say they belong'} to ${sectionName(filed.most.says)}.`
      : `${counted(pages, 'page')} by address. Dashed folders have no page of their own.`,
  saidOfLinks: (
    pages: number,
    communities: { pages: number; around: string }[],
    everywhere: number,
    apart: number,
  ): string =>
    [
      communities.length > 0
        ? `${counted(pages, 'page')} in ${counted(communities.length, 'community', 'communities')}; the largest, around ${communities[0].around}, has ${number(communities[0].pages)}.`
        : `${counted(pages, 'page')}, of which no two are linked but by menus.`,
      apart ? ` Nothing but menus joins ${number(apart)} to the others.` : '',
      everywhere ? ` Links to ${counted(everywhere, 'page')}, as menus have them, are left out.` : '',
    ].join(''),
};
