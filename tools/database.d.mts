export interface Database {
  readonly url: string;
  readonly stop: () => Promise<void>;
}
export function throwAwayDatabase(): Promise<Database>;
