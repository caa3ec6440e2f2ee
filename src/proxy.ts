import { NextResponse, type NextRequest } from 'next/server'

/**
 * Sets what every page may do. A script runs only with the nonce of its own answer, so that text which
 * got onto a page as markup runs nothing. Yards run plain http: nothing is upgraded to https, and only
 * where a request came over it the browser is told to stay there.
 */
export function proxy(request: NextRequest): NextResponse {
  if (request.headers.has('next-action') && !isOurs(request))
    return new NextResponse('This request did not come from a page of Atelier.', { status: 403 })
  if (!isAskedAsAPage(request))
    return new NextResponse('Pages are only read.', { status: 405, headers: { allow: 'GET, HEAD' } })
  const nonce = btoa(crypto.randomUUID())
  const development = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : ''
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development}`,
    // Graphics and the component library place things by style attributes, which take no nonce.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
  const headers = new Headers(request.headers)
  headers.set('x-nonce', nonce)
  headers.set('content-security-policy', policy)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('content-security-policy', policy)
  if (request.headers.get('x-forwarded-proto') === 'https')
    response.headers.set('strict-transport-security', 'max-age=31536000')
  return response
}

/** Reading it, an action, or a form sent without scripts: anything else would draw a whole page for nothing. */
function isAskedAsAPage({ method, headers }: NextRequest): boolean {
  if (method === 'GET' || method === 'HEAD') return true
  const isForm = headers.get('content-type')?.startsWith('multipart/form-data') ?? false
  return method === 'POST' && (headers.has('next-action') || isForm)
}

/** An action that names another site as where it comes from: Next refuses it too, as a fault of ours. */
function isOurs(request: NextRequest): boolean {
  const origin = request.headers.get('origin')
  const host = request.headers.get('x-forwarded-host') ?? request.headers.get('host')
  if (origin === null) return true
  return URL.canParse(origin) && new URL(origin).host === host
}

/** Pages only: what is uploaded must not pass here, since bodies over 10 MB would be cut off. */
export const config = { matcher: ['/((?!api/|feeds/|_next/static|_next/image|icon.svg).*)'] }
