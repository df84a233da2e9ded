/** The texts of live checks. */
import { unanswered } from '../shell/words';

export const texts = {
  noAnswer: unanswered('The check could not be asked for.'),
};
