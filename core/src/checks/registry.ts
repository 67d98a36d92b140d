import type { CheckDefinition } from './define.js';
import { tailstockSweep } from './catalogue/tailstockSweep.js';
import { tailstockTestCut } from './catalogue/tailstockTestCut.js';
import { tailstockTraverse } from './catalogue/tailstockTraverse.js';

const ALL: readonly CheckDefinition[] = [tailstockTraverse, tailstockSweep, tailstockTestCut];

/** Every check that can be solved, by id. */
export const CHECKS: ReadonlyMap<string, CheckDefinition> = new Map(ALL.map((check) => [check.id, check]));
