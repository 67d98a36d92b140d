export interface Database {
  readonly url: string;
  readonly stop: () => Promise<void>;
}
export function freePort(): Promise<number>;
export function throwAwayDatabase(): Promise<Database>;
