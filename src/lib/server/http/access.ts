/**
 * Who may ask for what: every server route, by method. A route that is not listed answers nobody.
 * The tests walk the folders and this list against each other, and each route as everybody.
 */
export type Who =
  /** Strangers too. Each of these counts tries. */
  | 'anybody'
  /** A device with its token that has not been shut out. */
  | 'device'
  /** Only a device that has been shut out. */
  | 'device that was shut out'
  /** Somebody signed in with e-mail and password. */
  | 'owner'
  /** An owner who has just shown the password or a passkey: for what cannot be undone. */
  | 'owner, proved afresh';

export const access: Readonly<Record<string, Who>> = {
  'POST /api/enrol': 'anybody',
  'POST /api/account/sign-up': 'anybody',
  'POST /api/account/sign-in': 'anybody',
  'POST /api/account/forgot': 'anybody',
  'POST /api/account/reset': 'anybody',
  'POST /api/account/verify': 'anybody',
  'POST /api/account/passkey/challenge': 'anybody',
  'POST /api/account/passkey/sign-in': 'anybody',
  'GET /api/calendar/[token]': 'anybody',
  'GET /api/account/calendar': 'owner',
  'POST /api/account/calendar': 'owner, proved afresh',
  'DELETE /api/account/calendar': 'owner',
  'POST /api/account/proof': 'owner',
  'POST /api/account/verify/letter': 'owner',
  'POST /api/account/passkeys/challenge': 'owner, proved afresh',
  'POST /api/account/passkeys': 'owner, proved afresh',
  'DELETE /api/account/passkeys/[id]': 'owner, proved afresh',
  'POST /api/account/sign-out': 'owner',
  'POST /api/account/password': 'owner',
  'GET /api/account': 'owner',
  'DELETE /api/account/sessions/[id]': 'owner',
  'GET /api/bank': 'owner',
  'GET /api/pay': 'owner',
  'GET /api/bank/lines': 'owner',
  'GET /api/devices': 'owner',
  'POST /api/devices/code': 'owner, proved afresh',
  'POST /api/devices/[id]/shut-out': 'owner, proved afresh',
  'GET /api/devices/[id]/unsent': 'owner',
  'POST /api/devices/[id]/unsent': 'owner, proved afresh',
  'GET /api/sync/start': 'device',
  'GET /api/sync/photos': 'device',
  'POST /api/sync/records': 'device',
  'GET /api/sync/pull': 'device',
  'POST /api/sync/push': 'device',
  'POST /api/sync/unsent': 'device that was shut out',
  'GET /api/events/[id]/takings': 'device',
  'GET /api/events/[id]/settling': 'device',
  'GET /api/events/[id]/editions': 'device',
  'GET /api/events/[id]/behind': 'device',
  'GET /api/loose-ends': 'device',
  'GET /api/ledger': 'device',
  'GET /api/ledger/chart': 'device',
  'GET /api/sales': 'device',
  'GET /api/sales/[id]': 'device',
  'GET /api/documents/[id]': 'device',
  'GET /api/customers/[id]/documents': 'device',
  'GET /api/held': 'device',
  'POST /api/invoices/number': 'device',
  'GET /api/kept': 'device',
  'GET /api/cards/key': 'device',
  'GET /api/cards/report': 'device',
  'POST /api/cards/payments': 'device',
  'POST /api/cards/cancel': 'device',
  'POST /api/cards/capture': 'device',
  'POST /api/cards/release': 'device',
  'POST /api/cards/refund': 'device',
  'POST /api/cards/keep': 'device',
};
