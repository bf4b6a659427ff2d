export * from './event';
export * from './limits';
export * from './link';
export * from './machine';
export * from './messages';
export * from './query';
export * from './shop';
