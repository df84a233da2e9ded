/** The texts around the steps of the tour. */
export const texts = {
  tour: 'Tour',
  tourOf: (step: number, steps: number) => `Tour, ${step} of ${steps}`,
  endTour: 'End tour',
  next: 'Next',
  back: 'Back',
  leaveTour: 'Leave tour',
};
