export { madeFrom, whole, type Made } from './madeFrom.js';
export { OpenArchive } from './reading.js';
