import { TokenRow } from '../db/archiveModels.js';
import { secretsIn } from './secrets.js';

/** Tokens with which spreadsheets and screens of the shop's own read. */
export const tokens = secretsIn(TokenRow, {
  ...{ called: 'token', what: 'device' },
  made: (name) => `Token for ${name} made: it may read`,
  revoked: (name) => `Token for ${name} revoked`,
});
