export {
  appDatabase,
  closeDatabase,
  databaseUrl,
  hashOf,
  inRuns,
  inTransaction,
  isConnectionLoss,
  isDiskFull,
  openDatabase,
  OperatorError,
  retryOutage,
} from './connection';
export type { Database, Statement } from './connection';
export { dictionary } from './dictionary';
export type { Dictionary } from './dictionary';
