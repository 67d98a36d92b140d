export { FaultError } from '../../input/faults.js';
export { cleanPicture, MOST_BYTES, MOST_PIXELS, pictureFacts, type PictureFacts } from './picture.js';
export type { Pixels } from './frame.js';
export { LEAST_SPOT, readPrint, type Print, type PrintSettings, type PrintZone, type ZonePrint } from './readPrint.js';
export type { Scale, Spot } from './frame.js';
