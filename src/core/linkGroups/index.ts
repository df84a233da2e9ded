export { groupByAnchor, groupByEdit } from './linkGroups';
