/** Text in XML 1.0. */
const references: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** What XML 1.0 (§2.2) cannot hold, however it is written: control characters, and halves of pairs. */
const forbidden = /(?![\t\n\r])[\p{Cc}\p{Cs}\ufffe\uffff]/gu;

/** As text or value of an attribute. */
export const xmlText = (value: unknown): string =>
  String(value)
    .replace(forbidden, '\ufffd')
    .replace(/[&<>"]/g, (sign) => references[sign]);
