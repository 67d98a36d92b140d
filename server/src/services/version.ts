import { createRequire } from 'node:module';

/** Version of the core that works the findings out. */
export const CORE_VERSION: string = (createRequire(import.meta.url)('../../../core/package.json') as { version: string }).version;
