export { addBound, boundsOf, checkBounds, removeBound } from './bounds';
