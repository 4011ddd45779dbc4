/** Every request passes here: who asks, from where, and whether they may. */
import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { chargeWhenDue, clearEveryHour, doBehind, takeUpKept } from '$lib/server/behind';
import { access } from '$lib/server/http/access';
import { refused } from '$lib/server/http/answers';
import { compressed } from '$lib/server/http/compressed';
import { isAway } from '$lib/server/database/database';
import { noDatabase } from '$lib/server/http/not-now';
import { sessionToken } from '$lib/server/http/session-cookie';
import { closeServices, log, services } from '$lib/server/services';

/** What devices ask for by the thousand rows. */
const PACKED = new Set(['/api/sync/start', '/api/sync/pull', '/api/sync/photos']);
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** What a server that was stopped had not done yet goes on at once. */
export const init: ServerInit = () => {
  if (building) return;
  doBehind();
  takeUpKept();
  clearEveryHour();
  chargeWhenDue();
};

export const handle: Handle = async ({ event, resolve }) => {
  const isApi = event.url.pathname.startsWith('/api/');
  const isNowhere = !isApi && event.route.id === null;
  const refusal = isApi ? await whyNotNow(event) : isNowhere ? nowhere() : null;
  const resolved = refusal ?? (await resolve(event));
  const whole = event.locals.isDatabaseAway === true ? noDatabase() : resolved;
  const response = PACKED.has(event.route.id ?? '')
    ? await compressed(event.request, whole)
    : whole;
  // The other security headers are the server's (scripts/serve.mjs), on pages made ahead as well.
  if (isApi)
    response.headers.set('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
  return response;
};

/** Pages are made ahead, so what is not among them has no page to say so with. */
const nowhere = (): Response =>
  new Response('There is nothing at this address. The till itself is at /', {
    status: 404,
    headers: { 'content-type': 'text/plain; charset=utf-8' },
  });

async function whyNotNow(event: RequestEvent): Promise<Response | null> {
  try {
    return await whyNot(event);
  } catch (error) {
    if (!isAway(error)) throw error;
    return noDatabase();
  }
}

/** Why a request for data is not answered, or null. What it needs to know of the asker is noted. */
async function whyNot(event: RequestEvent): Promise<Response | null> {
  const { request, locals, url } = event;
  const method = request.method === 'HEAD' ? 'GET' : request.method;
  const origin = request.headers.get('origin');
  if (!SAFE.has(method) && origin !== null && origin !== url.origin) {
    return refused(403, 'origin/other');
  }
  const who = access[`${method} ${event.route.id ?? ''}`];
  if (who === 'anybody') return null;
  if (who === 'owner' || who === 'owner, proved afresh') {
    const token = sessionToken(event.cookies);
    const owner = token === null ? null : await services().accounts.identify(token, Date.now());
    if (owner === null) {
      return refused(401, 'owner/unknown');
    }
    // A cookie goes along by itself, so it must be our own page that sends it.
    if (!SAFE.has(method) && origin === null) {
      return refused(403, 'origin/unknown');
    }
    if (who === 'owner, proved afresh' && !owner.isFresh) {
      return refused(403, 'proof/needed');
    }
    locals.owner = owner;
    return null;
  }
  const token = /^Bearer ([0-9a-f]{64})$/.exec(request.headers.get('authorization') ?? '')?.[1];
  const device = token === undefined ? 'unknown' : await services().enrolment.identify(token);
  if (device === 'unknown') {
    return refused(401, 'device/unknown');
  }
  if (who === undefined) {
    return refused(404, 'route/none');
  }
  if (device.isShutOut !== (who === 'device that was shut out')) {
    return refused(403, device.isShutOut ? 'device/shut-out' : 'device/not-shut-out');
  }
  locals.device = device;
  return null;
}

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  event.locals.isDatabaseAway = isAway(error);
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
