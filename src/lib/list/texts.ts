/** The texts of lists. */
import { number, unanswered } from '../shell/words';

export const texts = {
  find: 'Find …',
  noneFound: (find: string) => `None has “${find}”.`,
  notShown: (n: number) => `${number(n)} more are not shown.`,
  noWords: 'no words',
  was: 'was',
  shown: 'Shown',
  moveToTheLeft: (label: string) => `Move ${label} to the left`,
  moveToTheRight: (label: string) => `Move ${label} to the right`,
  keepInSight: (label: string) => `Keep ${label} in sight`,
  pin: 'pin',
  others: 'Others',
  resetColumns: 'Reset columns',
  distribution: (label: string) => `${label}: distribution`,
  noTestHoldsThem: ' (no test holds them)',
  pickAllInTheSelection: 'Pick all in the selection',
  widthOf: (label: string) => `Width of ${label}`,
  theRowsCouldNotBeRead: unanswered('The rows could not be read.'),
  rowsArrowsMoveEnterOpensX: 'Rows: arrows move, Enter opens, x picks',
  pickThisRow: 'Pick this row',
};
