export { deleteCrawl, deleteSite, removeDeleted, undelete, UNDO_SECONDS } from './removal';
