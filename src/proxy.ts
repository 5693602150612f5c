import { NextResponse, type NextRequest } from 'next/server';
import { foreignTo } from './ownHost';

/**
 * The Content-Security-Policy of every page: scripts only from here and with this answer's nonce, nothing fetched
 * from elsewhere, no frames. Styles are written into the page by the component library.
 */
export function proxy(request: NextRequest): NextResponse {
  const foreign = foreignTo(request.headers);
  if (foreign) return new NextResponse(foreign, { status: 403 });
  const nonce = btoa(crypto.randomUUID());
  const development = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  const policy = [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${development}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  return response;
}

export const config = { matcher: [{ source: '/((?!api/|_next/static|_next/image|demo/|marks/|icon).*)' }] };
