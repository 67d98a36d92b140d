export { dated } from './cell.js';
export { looksHeaded, MOST_ROWS, partText, tableOfCells, type Table } from './table.js';
export { kept, likely, type InField, type Mapped, type Mapping } from './fields.js';
export { rowsToWrite, type InRow } from './rows.js';
export { readingFields } from './readingFields.js';
export type { ReadingIn, ReadingsAbout } from './readingPlaces.js';
export { isByOrder, placesTaken, readingRows, startOf } from './readings.js';
export { kitFields, kitRows, machineFields, machineRows } from './things.js';
