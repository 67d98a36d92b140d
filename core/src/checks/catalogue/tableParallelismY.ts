import { tableParallelism } from '../tableParallelism.js';

export const tableParallelismY = tableParallelism('y', 'column');
