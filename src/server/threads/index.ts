export { ask, inThread, runThread } from './bounded';
export { analysisThread, baseThread, importThread, isBuilt, parserThread, zstdThread } from './programs';
