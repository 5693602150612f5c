/** Names under which the app is served on this machine. Another one means that a page from elsewhere was led here. */
const OWN = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i;

/**
 * Whether a request comes from, or is for, another place than this: a name that leads here and is not ours, or a page of
 * another origin. STIGMOS_HOST names one more host that is ours.
 * @returns why it is refused, as a sentence; undefined when it is not
 */
export function foreignTo(headers: Pick<Headers, 'get'>): string | undefined {
  const host = headers.get('host') ?? '';
  if (!OWN.test(host) && host !== process.env.STIGMOS_HOST) return 'Stigmos is not served under this name.';
  const origin = headers.get('origin');
  if (origin === null) return undefined;
  // ports that go without saying are left out of both
  const placeOf = (url: string) => (URL.canParse(url) ? new URL(url).host : '');
  return placeOf(origin) === placeOf(`http://${host}`) ? undefined : 'Pages from elsewhere are not served.';
}
