export { communityNumbers, everywherePages } from './communities';
