export * from './common.js';
export * from './machine.js';
export * from './kit.js';
export * from './round.js';
export * from './sheetOf.js';
export * from './history.js';
export * from './rungs.js';
