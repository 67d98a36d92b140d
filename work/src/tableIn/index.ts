export { dated } from './cell.js';
export { looksHeaded, MOST_ROWS, partText, tableOfCells, type Table } from './table.js';
export { kept, likely, type InField, type Mapped, type Mapping } from './fields.js';
export { rowsToWrite, type InRow } from './rows.js';
export { isByOrder, readingFields, readingRows, placesTaken, startOf, type ReadingIn, type ReadingsAbout } from './readings.js';
export { kitFields, kitRows, machineFields, machineRows } from './things.js';
