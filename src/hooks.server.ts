/** Every request passes here: who asks, and whether they may. */
import type { Handle, HandleServerError } from '@sveltejs/kit';
import { refused } from '$lib/server/http/answers';
import { closeServices, log, services } from '$lib/server/services';

/** The only server routes that answer without a device's token. */
const OPEN = new Set(['/api/enrol']);

export const handle: Handle = async ({ event, resolve }) => {
  const { pathname } = event.url;
  if (pathname.startsWith('/api/') && !OPEN.has(pathname)) {
    const token = /^Bearer ([0-9a-f]{64})$/.exec(
      event.request.headers.get('authorization') ?? '',
    )?.[1];
    const known = token === undefined ? 'unknown' : await services().enrolment.identify(token);
    if (known === 'unknown') {
      const message = 'This device is not enrolled here; enrol it with a code.';
      return refused(401, { code: 'device/unknown', message });
    }
    if (known === 'shut out') {
      const message = 'This device has been shut out; an owner can enrol it again.';
      return refused(403, { code: 'device/shut-out', message });
    }
    event.locals.device = known;
  }
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  response.headers.set('x-frame-options', 'DENY');
  return response;
};

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  const name = error instanceof Error ? error.name : 'unknown';
  const message = error instanceof Error ? error.message : '';
  log.error(
    { route: event.route.id, status, name, message: message.slice(0, 300) },
    'request failed',
  );
  return { message: 'The server could not do this just now. Nothing was changed; try again.' };
};

// adapter-node says so when the last request is done; without it the pool would keep us alive.
process.on('sveltekit:shutdown', () => void closeServices());
