export { addBound, boundsOf, checkBounds, removeBound } from './watchList';
