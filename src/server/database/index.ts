export {
  appDatabase,
  closeDatabase,
  databaseUrl,
  hashOf,
  inOrder,
  inTransaction,
  isConnectionLoss,
  isDiskFull,
  openDatabase,
  READ_ROWS,
  retryOutage,
} from './connection';
export type { Database, Statement } from './connection';
export { dictionary } from './dictionary';
export type { Dictionary } from './dictionary';
export { inRuns } from './runs';
