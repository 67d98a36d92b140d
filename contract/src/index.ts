export * from './common.js';
export * from './machineKinds.js';
export * from './machine.js';
export * from './storedMachine.js';
export * from './kit.js';
export * from './round.js';
export * from './survey.js';
export * from './limits.js';
