export { deleteCrawl, deleteSite, removeDeleted, undelete, UNDO_SECONDS } from './removal';
export { keepCrawls, pinCrawl, pruneCrawls } from './keeping';
