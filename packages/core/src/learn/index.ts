export * from './counts';
export * from './lesson';
export * from './apply';
export * from './order';
export * from './preview';
export * from './pace';
