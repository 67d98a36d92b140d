import { buffer } from 'node:stream/consumers';
import type { Report } from '@isometra/work';
import { fonts } from '../report/fonts.js';
import { labelSheet, type Label } from '../report/labels.js';
import { Printer, type Paper } from '../report/printer.js';

/** A report that is to be printed. */
export interface ReportTask {
  readonly report: Report;
  readonly paper: Paper;
  /** What the document says that it is of. */
  readonly subject: string;
}

/** Labels that are to be printed. */
export interface LabelTask {
  readonly labels: readonly Label[];
  readonly paper: Paper;
}

const bytesOf = async (pdf: NodeJS.ReadableStream): Promise<Uint8Array> => new Uint8Array(await buffer(pdf));

/** A report as PDF. */
export const report = async ({ report: told, paper, subject }: ReportTask): Promise<Uint8Array> =>
  bytesOf(new Printer(told, { paper, subject }, await fonts()).print());

/** A sheet of labels as PDF. */
export const labels = async ({ labels: all, paper }: LabelTask): Promise<Uint8Array> => bytesOf(labelSheet(all, paper, await fonts()));
