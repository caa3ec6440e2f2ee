import type { AnchorHTMLAttributes } from 'react'

/**
 * A link inside the application: a plain anchor with a mark, which `Ways` follows without loading the
 * document anew. Every page here is made for whoever asks, so nothing is fetched ahead; and a list with a
 * hundred links costs no more than their letters.
 */
export function Link({ href, ...props }: AnchorHTMLAttributes<HTMLAnchorElement> & { href: string }) {
  return <a href={href} data-way="" {...props} />
}
