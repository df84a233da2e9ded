import { elementSet } from './elements';

/** Elements that end no word. */
export const inline = elementSet(
  'a abbr b bdi bdo cite code dfn em font i kbd mark q s small span strong sub sup time u var wbr',
);
