import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

describe('the threads that solve', () => {
  it('can be ended at any moment while they load, and the server lives on', async () => {
    const started = JSON.stringify(new URL('./solver.js', import.meta.url).href);
    const script = `
      const { Solver } = await import(${started});
      for (let wait = 0; wait < 900; wait += 50) {
        const solver = new Solver();
        await new Promise((resolve) => setTimeout(resolve, wait));
        await solver.close();
      }
      process.stdout.write('lives');
    `;
    const { stdout } = await promisify(execFile)(process.execPath, ['--input-type=module', '--eval', script]);
    expect(stdout).toBe('lives');
  }, 120_000);
});
