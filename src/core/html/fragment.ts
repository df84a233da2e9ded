/**
 * The name of an id, in the form in which fragments are compared with it: percent-escapes are resolved in a fragment,
 * not in an id.
 */
export function fragmentName(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}
