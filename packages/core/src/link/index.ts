export * from './protocol';
export * from './guard';
export * from './signs';
