/** The service record as files; `query` names the machine or the pump. */
export function RecordDownloads({ query }: { query: string }) {
  return (
    <>
      newest first ·{' '}
      <a href={`/api/record?${query}&format=csv`} download>
        CSV
      </a>{' '}
      <a href={`/api/record?${query}&format=json`} download>
        JSON
      </a>
    </>
  )
}
