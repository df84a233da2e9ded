/** The package has no types of its own. */
declare module 'snowball-stemmers' {
  const snowball: { newStemmer: (algorithm: string) => { stem: (word: string) => string } };
  export default snowball;
}
