export { asksForSource, editingAddress, editingPatternFault } from './editingAddress';
