import { Injectable } from '@angular/core';
import { madeTokenSchema, type MadeToken } from '@isometra/contract';
import { GivenOutList } from './given-out';

/** Tokens with which spreadsheets and screens of the shop's own read. */
@Injectable({ providedIn: 'root' })
export class Tokens extends GivenOutList<MadeToken> {
  constructor() {
    super('/tokens', madeTokenSchema, ({ token }) => token);
  }
}
