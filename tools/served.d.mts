export interface Served {
  readonly address: string;
  readonly database: string;
  readonly startServer: () => Promise<string>;
  readonly stopServer: () => Promise<void>;
  readonly stop: () => Promise<void>;
}
export function serve(options: { readonly demo: boolean; readonly within?: { readonly url: string } }): Promise<Served>;
export const CHROMIUM_FLAGS: string[];
