/** A text without regard to case. The Greek sigma at the end of a word is another small letter than elsewhere. */
export const caseless = (text: string): string => text.toLowerCase().replaceAll('ς', 'σ');
