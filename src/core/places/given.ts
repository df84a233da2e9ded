/** A text that somebody has written, as HTML in which places can be shown and links be put. */

const isHtml = /<(?:p|div|h[1-6]|ul|ol|li|a|main|article|section|br|table|body|html)\b[^>]*>/i;
const references: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };

/** Text as HTML, a paragraph for each of its own; HTML stays as it is. */
export const givenHtml = (text: string): string =>
  isHtml.test(text)
    ? text
    : text
        .split(/\n\s*\n/)
        .map((part) => part.trim().replace(/[&<>]/g, (sign) => references[sign]))
        .filter((part) => part !== '')
        .map((part) => `<p>${part}</p>`)
        .join('\n');
