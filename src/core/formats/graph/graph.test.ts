import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { graphEdges, graphPieces, nodesCsv } from '.';
import type { GraphFormatName } from '.';
import { evaluate, parseSelection } from '../../selection';
import { tiny, tinySite } from '../../testing/tinySite';
import { SaxesParser } from 'saxes';

const site = tinySite({
  '/': {
    title: 'Tea & "cake" \u0001 <here>',
    worded: [
      ['/a', 'Trams\n& more', 'nav'],
      ['/a', 'All "trams" \\'],
      ['/', 'Home'],
      ['https://elsewhere.example/', 'Elsewhere'],
    ],
  },
  '/a': { links: ['/b'], noindex: true },
  '/b': {},
});
const pagesOf = (select: string) => {
  const parsed = parseSelection(select);
  if (!parsed.ok) throw new Error(select);
  return evaluate(site, parsed.selection);
};
const written = (format: GraphFormatName, edges: (typeof graphEdges)[number] = 'links', select = '') =>
  [...graphPieces(site, { format, pages: pagesOf(select), edges })].join('');

interface Read {
  nodes: { id: string; title?: string; depth?: number; noindex?: boolean }[];
  edges: { source: string; target: string; anchor: string; placement: string; followed: boolean; count: number }[];
}
const json = (...of: [edges?: (typeof graphEdges)[number], select?: string]) =>
  JSON.parse(written('json', ...of)) as Read;
const edgesOf = ({ edges }: Read) =>
  edges.map(({ source, target, anchor, placement, count }) => [
    ...[source, target].map((address) => new URL(address).pathname),
    ...[anchor, placement, count],
  ]);

describe('a crawl as a graph', () => {
  it('has its pages with their facts, and the links between them', () => {
    expect(json().nodes.map(({ id, depth, noindex }) => [id, depth, noindex])).toEqual([
      [tiny('/'), 0, false],
      [tiny('/a'), 1, true],
      [tiny('/b'), 2, false],
    ]);
    expect(edgesOf(json())).toEqual([
      ['/', '/a', 'Trams\n& more', 'nav', 1],
      ['/', '/a', 'All "trams" \\', 'main', 1],
      ['/', '/', 'Home', 'main', 1],
      ['/a', '/b', '', 'main', 1],
    ]);
  });
  it('has one edge for all links of a pair, counted, where that is asked for', () =>
    expect(edgesOf(json('pairs'))).toEqual([
      ['/', '/a', 'Trams\n& more', 'nav', 2],
      ['/', '/', 'Home', 'main', 1],
      ['/a', '/b', '', 'main', 1],
    ]));
  it('has only the pages of a selection, and the links between those', () => {
    expect(json('links', 'noindex or depth = 2').nodes).toHaveLength(2);
    expect(edgesOf(json('links', 'noindex or depth = 2'))).toEqual([['/a', '/b', '', 'main', 1]]);
    expect(json('links', 'depth = 9')).toMatchObject({ nodes: [], edges: [] });
  });
  it.each(['graphml', 'gexf'] as const)('is well-formed XML as %s, whatever stands in it', (format) => {
    const names: string[] = [];
    const parser = new SaxesParser();
    parser.on('opentag', ({ name }) => names.push(name));
    parser.write(written(format)).close();
    expect([names.filter((name) => name === 'node').length, names.filter((name) => name === 'edge').length]).toEqual([
      3, 4,
    ]);
  });
  it('is a list of edges and one of nodes as CSV', () => {
    expect(written('csv').split('\r\n')[0]).toBe('source,target,anchor,placement,followed,count');
    expect(written('csv', 'pairs').split('\r\n')).toHaveLength(5);
    expect([...nodesCsv(site, pagesOf(''))].join('')).toMatch(/^url,host,path,/);
  });
  it('quotes what DOT would read otherwise', () =>
    expect(written('dot')).toContain(
      String.raw`[anchor="All \"trams\" \\", placement="main", followed="true", count="1"]`,
    ));
  it('opens in a common graph library with the same counts', (test) => {
    const script = `
import io, sys, json
try: import networkx
except ImportError: print('none'); sys.exit()
read = json.load(sys.stdin)
counts = []
for name, text in read.items():
    if name == 'json': graph = networkx.node_link_graph(json.loads(text), edges='edges')
    else: graph = getattr(networkx, 'read_' + name)(io.BytesIO(text.encode()))
    counts.append([graph.number_of_nodes(), graph.number_of_edges(), graph.is_directed()])
print(json.dumps(counts))`;
    const input = JSON.stringify({ graphml: written('graphml'), gexf: written('gexf'), json: written('json') });
    const said = execFileSync('python3', ['-c', script], { input }).toString().trim();
    if (said === 'none') return test.skip();
    expect(JSON.parse(said)).toEqual([
      [3, 4, true],
      [3, 4, true],
      [3, 4, true],
    ]);
  });
});
