/** Draws the picture of links, and lays it out anew only when other nodes are drawn. */
import { edgesBetween, layLinks, linkNodes, nodeLooks, openGroupOf } from '$core/maps';
import type { Drawing, Edges, LinkNode, Places } from '$core/maps';
import { hasBit } from '$core/selection/bits';
import type { Bits } from '$core/selection/bits';
import { textAt } from '$core/snapshot';
import type { View } from '$core/view';
import { everywherePages } from '$core/communities';
import type { MapState, Net } from './ask';
import type { Walked } from './crawlRead';

interface Laid {
  key: string;
  nodes: LinkNode[];
  edges: Edges;
  places: Places;
}

/** How much room a page takes, whatever its size tells: sizes may change and nothing is to move. */
const ROOM = 7;

function communitiesOf(view: View, pages: Uint32Array): Net['communities'] {
  const [numbers, share] = [view.column('community'), view.column('share')];
  const found = new Map<number, { pages: number; most: number }>();
  for (const page of pages) {
    if (numbers[page] < 0) continue;
    const known = found.get(numbers[page]);
    if (!known) found.set(numbers[page], { pages: 1, most: page });
    else {
      known.pages++;
      if (share[page] > share[known.most]) known.most = page;
    }
  }
  return [...found]
    .sort(([a, x], [b, y]) => y.pages - x.pages || a - b)
    .map(([number, { pages, most }]) => ({ number, pages, around: textAt(view, 'path', most) ?? '/' }));
}

/** Makes the function that draws nets, which keeps what it laid out last. */
export function netDrawer() {
  let laid: Laid | null = null;
  return (
    view: View,
    { graph }: Walked,
    pages: Uint32Array,
    { item, only, reader }: MapState,
    { colouring, sizes }: Drawing,
    selected: Bits | null,
  ) => {
    const open = openGroupOf(item);
    const key = JSON.stringify([open, only, reader]);
    if (laid?.key !== key) {
      const nodes = linkNodes(view, pages, open);
      const edges = edgesBetween(graph, nodes);
      const groups = nodeLooks(nodes, colouring, null);
      const room = nodes.map(({ page }, i) => (page < 0 ? groups[i].radius : ROOM));
      laid = { key, nodes, edges, places: layLinks(nodes, room, edges) };
    }
    const { nodes, edges, places } = laid;
    const drawn = Uint32Array.from(nodes.flatMap((node) => [...node.pages]));
    const looks = nodeLooks(nodes, colouring, sizes);
    const [verdict, gates] = [view.column('verdict'), view.column('gate_for')];
    const boxes = new Map(nodes.flatMap(({ id, pages: own }) => Array.from(own, (page) => [page, id] as const)));
    const net: Net = {
      nodes: nodes.map(({ id, page, name, pages: own, select, depth, community }, i) => ({
        ...{ id, page, name, select, community, ...looks[i] },
        pages: own.length,
        x: places.x[i],
        y: places.y[i],
        verdict: verdict[own[0]],
        isLost: depth < 0,
        isGate: page >= 0 && gates[page] > 0,
        isStart: depth === 0,
        isDimmed: selected !== null && !own.some((one) => hasBit(selected, one)),
      })),
      edges,
      apart: places.apart,
      pages: drawn.length,
      communities: communitiesOf(view, drawn),
      everywhere: everywherePages(graph).reduce((sum, one) => sum + one, 0),
    };
    return {
      net,
      crumbs: open
        ? [
            { item: '', name: null },
            ...(open.folder === null ? [] : [{ item: JSON.stringify({ ...open, folder: null }), name: open.section }]),
          ]
        : [],
      boxOf: (page: number) => ({ item: boxes.has(page) ? item : '', box: boxes.get(page) ?? '' }),
    };
  };
}
