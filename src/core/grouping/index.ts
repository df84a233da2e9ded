export { groupEqual } from './equal';
export type { Groups } from './equal';
export { orderByKey, radixOrder } from './order';
export { rowNumbering, rowTable } from './rowTable';
