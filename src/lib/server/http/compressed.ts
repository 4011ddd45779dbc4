/** Answers of many rows are packed for their way, where whoever asks can unpack them. */
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';

const pack = promisify(gzip);
/** Smaller ones are as quick as they are. */
const WORTH_IT = 2048;

export async function compressed(request: Request, response: Response): Promise<Response> {
  const accepts = request.headers.get('accept-encoding') ?? '';
  if (!/\bgzip\b/.test(accepts) || response.headers.has('content-encoding')) return response;
  const body = Buffer.from(await response.arrayBuffer());
  const headers = new Headers(response.headers);
  headers.append('vary', 'accept-encoding');
  if (body.length < WORTH_IT) return new Response(body, { status: response.status, headers });
  headers.set('content-encoding', 'gzip');
  return new Response(await pack(body), { status: response.status, headers });
}
