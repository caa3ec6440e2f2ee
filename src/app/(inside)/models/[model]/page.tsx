import type { Metadata } from 'next'
import { Link } from '@/ui/frame/Link'
import { mayDo } from '@/core/access'
import { showNumber } from '@/core/units'
import { getCompany, present } from '@/services/house'
import { getPumpModel } from '@/services/models'
import { EmptyState, Note } from '@/ui/feedback/States'
import { Page, Part } from '@/ui/frame/Page'
import { DeleteModel } from '@/ui/models/DeleteModel'
import { ModelChecks } from '@/ui/models/ModelChecks'
import { ModelData } from '@/ui/models/ModelData'
import { ModelVersions } from '@/ui/models/ModelVersions'
import { PublishModel } from '@/ui/models/PublishModel'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import { deletePumpModel, previewPumpModel, publishPumpModel, settleDoubt, withLookedUp } from '../actions'

export const metadata: Metadata = { title: 'Pump model' }

type Params = { params: Promise<{ model: string }>; searchParams: Promise<{ version?: string | string[] }> }

export default async function ModelPage({ params, searchParams }: Params) {
  const { model: id } = await params
  const asked = Number((await searchParams).version)
  const actor = await requireActor(`/models/${id}`)
  const [model, company] = await Promise.all([
    load(getPumpModel(actor, id, Number.isInteger(asked) && asked > 0 ? asked : undefined)),
    getCompany(actor),
  ])
  const { today } = present(company)
  const newest = model.versions[0]?.version ?? 0
  const { shown } = model
  const mayEdit = mayDo(actor.role, 'models.edit')
  const query = shown ? `?version=${shown.version}` : ''
  return (
    <Page
      title={`${model.maker} ${model.name}`}
      summary={[
        model.design,
        `${model.pumps} in service`,
        shown && `version ${shown.version}`,
        shown?.model.source,
      ]
        .filter(Boolean)
        .join(' · ')}
      back={{ href: '/models', label: 'Models' }}
      actions={
        <>
          {shown && (
            <a className="MuiButton-root button-link" href={`/api/models/${id}${query}`} download>
              Download as JSON
            </a>
          )}
          {mayEdit && (
            <>
              {model.pumps === 0 && (
                <DeleteModel
                  model={{ id, version: model.version, title: `${model.maker} ${model.name}` }}
                  remove={deletePumpModel}
                />
              )}
              <PublishModel
                label={newest === 0 ? 'Publish its data' : 'Publish a version'}
                look="contained"
                of={`${model.maker} ${model.name}`}
                preview={previewPumpModel}
                publish={publishPumpModel}
              />
            </>
          )}
        </>
      }
    >
      {shown ? (
        <div className="stack">
          {shown.version !== newest && (
            <Note tone="brass" title={`Version ${shown.version}, not the newest.`}>
              <Link href={`/models/${id}`}>Version {newest}</Link> is the one that pumps go by now.
            </Note>
          )}
          {model.family.length > 0 && (
            <p>
              One of a family that shares this procedure, with{' '}
              {model.family.map((each, index) => (
                <span key={each.id}>
                  {index > 0 && ', '}
                  <Link href={`/models/${each.id}`}>{each.name}</Link>
                </span>
              ))}
              .
            </p>
          )}
          {shown.model.notice && (
            <Note tone="brass" title="Mind:">
              {shown.model.notice}
            </Note>
          )}
          {shown.checks.length > 0 && (
            <Part title="To look at" aside="warnings, which the manual may overrule; doubts, until settled">
              <ModelChecks
                modelId={id}
                checks={shown.checks}
                today={today}
                settle={mayEdit ? settleDoubt : null}
              />
            </Part>
          )}
          {mayEdit && shown.version === newest && shown.lookedUp.length > 0 && (
            <Note
              title={`${shown.lookedUp.length === 1 ? 'One torque was' : `${shown.lookedUp.length} torques were`} looked up at the bench.`}
            >
              {shown.lookedUp
                .map(({ fastener, value, unit }) => {
                  const name = shown.model.fasteners.find((each) => each.key === fastener)?.name ?? fastener
                  return `${name} ${showNumber(value)}\u00a0${unit}`
                })
                .join(', ')}
              . They are offered on every sheet of this version; in the model they are stated.
              <div className="actions">
                <PublishModel
                  label="Take into the model"
                  of={`${model.maker} ${model.name}`}
                  start={withLookedUp.bind(null, id)}
                  preview={previewPumpModel}
                  publish={publishPumpModel}
                />
              </div>
            </Note>
          )}
          <ModelData model={shown.model} lookedUp={shown.lookedUp} />
          <Part title="Versions" aside="a published version is never changed">
            <ModelVersions modelId={id} versions={model.versions} shown={shown.version} today={today} />
          </Part>
          <p className="second">
            Written in an open format: <a href="/api/models/schema">JSON Schema of a pump model</a>.
          </p>
        </div>
      ) : (
        <EmptyState title="No data yet">
          Until its data is published, its pumps have hours but no clocks. The data says which parts wear
          where, how the pump comes apart, and when each service is due.
        </EmptyState>
      )}
    </Page>
  )
}
