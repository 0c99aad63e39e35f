import { isIP } from 'node:net';
import type { Request, RequestHandler } from 'express';
import { HttpProblem } from './problems.ts';

/** A host name without its port and brackets, small. */
export function hostName(host: string): string {
  const match = /^(?:\[([^\]]+)\]|([^:]+))(?::\d+)?$/.exec(host.trim().toLowerCase());
  return match?.[1] ?? match?.[2] ?? '';
}

/**
 * Whether a name in the Host header is one of this application's. A page of somebody else can have its own name lead
 * here (DNS rebinding) and would then read and write as if it were this one; an address in figures cannot be made to
 * lead elsewhere, and `localhost` never leaves the machine.
 */
export function isOwnHost(host: string | undefined, ownNames: ReadonlySet<string>): boolean {
  if (host === undefined) return false;
  const name = hostName(host);
  return name === 'localhost' || isIP(name) !== 0 || ownNames.has(name);
}

/**
 * Whether another page of the browser sent this: it says where it comes from, and older browsers say their origin only.
 */
function isFromElsewhere(request: Request): boolean {
  const site = request.get('sec-fetch-site');
  if (site !== undefined) return site !== 'same-origin' && site !== 'none';
  const origin = request.get('origin');
  return origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== request.get('host'));
}

/**
 * What a form of any web page can send without asking first; all that is read here has another type, so that a browser
 * asks before it sends it for somebody else, and is told no.
 */
const typesOfForms = /^\s*(?:application\/x-www-form-urlencoded|multipart\/form-data|text\/plain)\s*(?:;|$)/i;

export const notThisHost = () =>
  new HttpProblem(421, 'not-this-host', 'Fair Watt does not answer under this name; FAIRWATT_ADDRESS says its own');

/**
 * Keeps other web pages in the same browser away: a request under a name that is not ours is refused, and so is every
 * change that another page sends, or any page as a form.
 * @param names addresses and names by which the shop reaches the application, beside figures and `localhost`
 */
export function keepOtherPagesOut(names: readonly string[]): RequestHandler {
  const own = new Set(
    names.map((name) =>
      (/^https?:\/\//.test(name) && URL.canParse(name) ? new URL(name).hostname : name).toLowerCase(),
    ),
  );
  return (request, _response, next) => {
    if (!isOwnHost(request.get('host'), own)) throw notThisHost();
    if (request.method !== 'GET' && request.method !== 'HEAD' && isFromElsewhere(request))
      throw new HttpProblem(403, 'from-elsewhere', 'Another web page sent this; nothing was done');
    if (typesOfForms.test(request.get('content-type') ?? ''))
      throw new HttpProblem(415, 'a-form', 'What web pages send as a form is not read here; nothing was done');
    next();
  };
}
