/** The texts of the selection bar and of saved selections. */
export const texts = {
  isSaved: (name: string) => `“${name}” is saved.`,
  saved: (count: string) => `Saved${count}`,
  nameForThisSelection: 'Name for this selection',
  save: 'Save',
  delete: (name: string) => `Delete ${name}`,
  isDeleted: (name: string) => `“${name}” is deleted.`,
  noSelectionIsSavedYet: 'No selection is saved yet.',
  noSelectionIsSavedYetWrite: 'No selection is saved yet. Write or pick a selection, then save it here under a name.',
  pressEnter: (total: string, over: string) => `${total} ${over}, press Enter`,
  selectionOf: (over: string) => `Selection of ${over}`,
  allPagesWriteASelectionSuch: 'All pages. Write a selection, such as indexable and depth > 3',
  suggestions: 'Suggestions',
  recent: 'recent',
  nothingIsSelectedUntil: ' Nothing is selected until this is corrected.',
};
