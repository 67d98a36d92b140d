import { tableParallelism } from '../tableParallelism.js';

export const tableParallelismX = tableParallelism('x', 'right');
