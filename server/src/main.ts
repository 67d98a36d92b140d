import { readConfig } from './config.js';
import { startServing } from './serving.js';

/** Start, say on the standard output where, and stop cleanly on SIGTERM or SIGINT. */
async function main(): Promise<void> {
  const serving = await startServing(readConfig(process.env));
  console.log(`listening ${serving.address}`);
  if (serving.code) console.log(`pairing ${serving.code}`);
  const stop = (): void => {
    void serving.stop().then(() => process.exit(0));
    setTimeout(() => process.exit(0), 4000).unref();
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
}

main().catch((error: unknown) => {
  const { code, message } = error as { code?: string; message?: string };
  console.error(code === 'EADDRINUSE' ? `The port is taken. Choose another: PORT=4790 npm start` : (message ?? error));
  process.exit(1);
});
