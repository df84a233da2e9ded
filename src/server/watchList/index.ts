export { addBound, boundsOf, checkBounds, MOST_BOUNDS, removeBound } from './watchList';
