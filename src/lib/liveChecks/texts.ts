/** The texts of live checks. */
export const texts = {
  noAnswer: 'The check could not be asked for. Is Edge Map still running?',
};
