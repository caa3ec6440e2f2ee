import { readFeed } from '@/services/plan'

/** A private calendar link, asked for by a calendar: no session, the link itself is the key. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ token: string }> },
): Promise<Response> {
  const { token } = await params
  const feed = await readFeed(token.replace(/\.ics$/, ''))
  if (feed.state === 'open')
    return new Response(feed.text, {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': 'inline; filename="atelier.ics"',
        'cache-control': 'private, max-age=300',
      },
    })
  return feed.state === 'revoked'
    ? plain(410, 'This calendar link was revoked. Ask a coordinator for a new one.')
    : plain(404, 'There is no such calendar. Check that the whole link was copied.')
}

function plain(status: number, text: string): Response {
  return new Response(text, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } })
}
