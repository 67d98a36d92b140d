export * from '../fit/random.js';
export * from './dial.js';
export * from './tailstock.js';
export * from './headstock.js';
export * from './lathe.js';
export * from './mill.js';
export * from './model.js';
export * from './models.js';
export { dice, photographPrint, strewn, type Camera, type MadePrint, type PhotoOfPrint } from './printMaker.js';
