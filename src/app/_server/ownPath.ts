/** A path of our own to go to after signing in, or the start: an address that a browser would read as another host's
 *  ("//elsewhere", "/\elsewhere", "/<tab>/elsewhere") is not followed. */
export function ownPath(wanted: string): string {
  const here = 'http://here.invalid';
  if (!wanted.startsWith('/') || !URL.canParse(wanted, here)) return '/';
  const url = new URL(wanted, here);
  return url.origin === here ? `${url.pathname}${url.search}` : '/';
}
