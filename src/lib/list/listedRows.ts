/** What a picture may know of the rows of the list below it. */
export interface ListedRows {
  /** How many a person has picked; 0 where none are. */
  picked: number;
  /** The addresses of the rows that are picked or, where none are, of all. @throws Error when they cannot be read */
  addresses: () => Promise<string[]>;
}
