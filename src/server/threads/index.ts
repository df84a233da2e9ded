export { ask, inThread, runThread } from './bounded';
export {
  analysisThread,
  baseThread,
  importThread,
  isBuilt,
  parserThread,
  watchdogThread,
  zstdThread,
} from './programs';
