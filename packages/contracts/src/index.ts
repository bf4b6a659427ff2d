export * from './event';
export * from './limits';
export * from './messages';
export * from './query';
