export { errorText, isMessage, ruleText, sentence, unvisitedText } from './catalogue';
export type { Message } from './catalogue';
