export * from './protocol';
export * from './guard';
