export { graphEdges } from './elements';
export type { GraphEdges } from './elements';
export { graphFormats, graphPieces, nodesCsv } from './write';
export type { GraphFormatName } from './write';
