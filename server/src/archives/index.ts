export { madeFrom, type Made } from './madeFrom.js';
export { OpenArchive } from './reading.js';
export { verifyArchive } from './verifying.js';
