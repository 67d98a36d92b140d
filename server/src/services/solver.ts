import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { FindingHead } from '@isometra/contract';
import { ApiError } from '../api/errors.js';
import type { Cleaned } from '../workers/pictures.js';
import type { LabelTask, ReportTask } from '../workers/paper.js';
import type { Answer, HeadTask } from '../workers/solver.js';

/** Longest that one request may be worked on, ms. What the core takes is bounded: this is for what nobody thought of. */
const LONGEST = 5000;
/** A picture of 24 megapixels that was held on its side is drawn anew. */
const LONGEST_PICTURE = 30_000;
/** Rounds that are solved in one piece by one thread. */
const PIECE = 50;

/** A year of rounds is printed in seconds. */
const LONGEST_PAPER = 60_000;
const PAPER = fileURLToPath(new URL('../workers/paper.js', import.meta.url));
const PICTURES = fileURLToPath(new URL('../workers/pictures.js', import.meta.url));

/**
 * A thread loads its module with import and never with require: to end a thread in the middle of a require of an ES
 * module ends the whole process on some versions of Node (a server stopped, or a request given up, while it loads).
 */
const THREADS = ['--no-experimental-require-module'].filter((flag) => process.allowedNodeEnvironmentFlags.has(flag));

/** Threads that solve, so that the one that answers stays free. */
export class Solver {
  private readonly pool = new Piscina({
    filename: fileURLToPath(new URL('../workers/solver.js', import.meta.url)),
    execArgv: THREADS,
    minThreads: 1,
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: 60_000,
    maxQueue: 1000,
  });

  private async run<T>(
    name: string,
    task: unknown,
    { filename, longest = LONGEST }: { readonly filename?: string; readonly longest?: number } = {},
  ): Promise<T> {
    try {
      return (await this.pool.run(task, { name, signal: AbortSignal.timeout(longest), ...(filename && { filename }) })) as T;
    } catch (error) {
      if ((error as Error).name !== 'AbortError' && (error as Error).name !== 'TimeoutError') throw error;
      throw new ApiError(422, [
        {
          path: '',
          message: 'takes longer than a server can give to one request',
          example: 'fewer readings, fewer leaves, a shorter way, fewer draws, a smaller picture, or a report of fewer checks',
        },
      ]);
    }
  }

  /** Solve a sheet, plan a move or a job, lay a job out, or tell a machine's story; its faults become a 400. */
  async answer(name: 'sheet' | 'move' | 'history' | 'job' | 'layOut', raw: unknown): Promise<unknown> {
    const told = await this.run<Answer>(name, raw);
    if ('faults' in told) throw new ApiError(400, told.faults);
    return told.value;
  }

  /** What each of some rounds says, in short. */
  async heads(tasks: readonly HeadTask[]): Promise<(FindingHead | null)[]> {
    const pieces = Array.from({ length: Math.ceil(tasks.length / PIECE) }, (_, i) => tasks.slice(i * PIECE, (i + 1) * PIECE));
    const told = await Promise.all(pieces.map((piece) => this.pool.run(piece, { name: 'heads' }) as Promise<(FindingHead | null)[]>));
    return told.flat();
  }

  /** A picture as it is kept; what is no picture becomes a 400. */
  async cleaned(bytes: Uint8Array): Promise<Extract<Cleaned, { readonly value: unknown }>['value']> {
    const told = await this.run<Cleaned>('clean', bytes, { filename: PICTURES, longest: LONGEST_PICTURE });
    if ('faults' in told) throw new ApiError(400, told.faults);
    return told.value;
  }

  /** A report or a sheet of labels, as PDF. */
  printed(name: 'report', task: ReportTask): Promise<Uint8Array>;
  printed(name: 'labels', task: LabelTask): Promise<Uint8Array>;
  printed(name: string, task: unknown): Promise<Uint8Array> {
    return this.run<Uint8Array>(name, task, { filename: PAPER, longest: LONGEST_PAPER });
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
