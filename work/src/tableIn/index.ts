export { cellsOf, looksHeaded, MOST_ROWS, openQuote, tableOfCells, type Table } from './table.js';
export { kept, likely, unitWords, type InField, type Mapped, type Mapping } from './fields.js';
export { rowsToWrite, type InRow } from './rows.js';
export { readingFields, readingRows, startOf, type ReadingIn, type ReadingsAbout } from './readings.js';
export { kitFields, kitRows, machineFields, machineRows } from './things.js';
