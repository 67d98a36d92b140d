export * from './random.js';
export * from './dial.js';
export * from './tailstock.js';
