/** What the first page of an application needs, and no more: the rest of the core is large and may come later. */
export { noShopChanges } from './catalogue/shop';
export { nothingLearned } from './learn/counts';
export { temperatureAt, timeLeft } from './order/state';
export { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C } from './physics/heat';
export { fittingText } from './text/wellFormed';
