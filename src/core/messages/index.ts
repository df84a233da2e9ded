export { errorText, isMessage, ruleText, sentence, unvisitedText } from './catalogue';
export type { Message, MessageCode } from './catalogue';
