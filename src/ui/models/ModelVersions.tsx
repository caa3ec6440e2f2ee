import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import type { ModelChange } from '@/core/models'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Version = { version: number; day: string; by: string; news: string; changes: ModelChange[] }
type Props = { modelId: string; versions: Version[]; shown: number; today: string }

/** Every version, newest first, with what changed since the one before. */
export function ModelVersions({ modelId, versions, shown, today }: Props) {
  return (
    <ol className="plain-list">
      {versions.map(({ version, day, by, news, changes }) => (
        <li key={version} className="version-line">
          <p>
            {version === shown ? (
              <span className="strong">Version {version}</span>
            ) : (
              <Link href={`/models/${modelId}?version=${version}`}>Version {version}</Link>
            )}{' '}
            <span className="second">
              {showDay(day, today)}, {by}
            </span>{' '}
            {news}
          </p>
          {changes.length > 0 && (
            <details open={changes.length <= 6}>
              <summary>
                {changes.length === 1 ? 'One change' : `${changes.length} changes`} since version{' '}
                {version - 1}
              </summary>
              <ChangeTable changes={changes} />
            </details>
          )}
        </li>
      ))}
    </ol>
  )
}

/** Where, what it said, what it says. */
export function ChangeTable({ changes }: { changes: ModelChange[] }) {
  return (
    <Table className="plain">
      <TableHead>
        <TableRow>
          <HeadCell>Where</HeadCell>
          <HeadCell>Before</HeadCell>
          <HeadCell>Now</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {changes.map(({ path, before, after }) => (
          <TableRow key={path}>
            <TableCell>
              <code>{path}</code>
            </TableCell>
            <TableCell className="second">{before}</TableCell>
            <TableCell>{after}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
