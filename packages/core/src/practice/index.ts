export * from './hidden';
export * from './benchWork';
export * from './tracer';
export * from './habits';
export * from './information';
export * from './school';
export * from './optimum';
