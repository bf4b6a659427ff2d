export { PracticeScreen } from './PracticeScreen';
export { RoundScreen } from './RoundScreen';
