import { Page } from '../frame/Page'
import { Note } from './States'

/** In the place of a form, for whoever could fill it in and never save it. */
export function NotYours({ title, back }: { title: string; back: { href: string; label: string } }) {
  return (
    <Page title={title} back={back}>
      <Note>Coordinators change machines, meters and pumps. Ask one of them.</Note>
    </Page>
  )
}
