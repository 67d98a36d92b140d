export * from './words.js';
export * from './told.js';
export * from './story.js';
export { readHistory } from './read.js';
