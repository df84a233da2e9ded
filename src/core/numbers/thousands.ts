/**
 * A whole number with thousands separators. By hand: for `toLocaleString` a program first loads the tables of a language,
 * which takes longer than a small crawl takes to be stored.
 */
export const thousands = (n: number): string => String(n).replace(/\B(?=(\d{3})+$)/g, ',');
