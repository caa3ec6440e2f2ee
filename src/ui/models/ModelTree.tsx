import { positionName, type AccessNode, type PumpModel } from '@/core/models'
import { choiceName, practiceOf } from '@/core/practices'
import { inSentence } from '@/core/units'
import { StackDrawing } from '../graphics/StackDrawing'
import { ModelSteps } from './ModelSteps'

/** The way in: how the pump comes apart, node by node, each with what it costs, destroys and disturbs. */
export function ModelTree({ model, parent = null }: { model: PumpModel; parent?: string | null }) {
  const nodes = model.access.filter((node) => node.parent === parent)
  if (nodes.length === 0) return null
  return (
    <ul className="access-tree">
      {nodes.map((node) => (
        <li key={node.key}>
          <details>
            <summary>
              <span className="strong">{node.name}</span>{' '}
              <span className="second">
                {node.openMinutes} + {node.closeMinutes} min
                {node.repeat ? `, each ${nameIn(model.repeats, node.repeat)}` : ''}
                {node.needs.length > 0 &&
                  `, after ${node.needs.map((key) => inSentence(nameIn(model.access, key))).join(' and ')} too`}
              </span>
            </summary>
            <NodeDetails node={node} model={model} />
          </details>
          <ModelTree model={model} parent={node.key} />
        </li>
      ))}
    </ul>
  )
}

function NodeDetails({ node, model }: { node: AccessNode; model: PumpModel }) {
  const partName = (key: string) => nameIn(model.parts, key)
  const consumes = node.consumes.map(
    ({ part, quantity, rule, practice }) =>
      `${quantity} ${inSentence(partName(part))}${rule === 'onCondition' ? ' (on condition)' : ''}${practice ? ` (${practiceOf(practice).name.toLowerCase()}: by practice)` : ''}`,
  )
  return (
    <div className="node-details">
      {node.practice && (
        <p className="second">
          Only where {practiceOf(node.practice.key).name.toLowerCase()} is:{' '}
          {node.practice.is
            .map((choice) => choiceName(node.practice!.key, choice).toLowerCase())
            .join(' or ')}
        </p>
      )}
      {node.open.length > 0 && (
        <>
          <h3>Opening</h3>
          <ModelSteps steps={node.open} model={model} phase="stripDown" />
        </>
      )}
      {node.stack.length > 0 && (
        <>
          <h3>In the bore, innermost first</h3>
          <StackDrawing stack={node.stack} partName={partName} name={node.name} />
        </>
      )}
      {node.bench.map((built) => (
        <p key={built.key}>
          Built on the bench first, fitted as one: <span className="strong">{built.name}</span>{' '}
          <span className="second">{built.of.map(partName).join(', ')}</span>
        </p>
      ))}
      {node.close.length > 0 && (
        <>
          <h3>Closing</h3>
          <ModelSteps steps={node.close} model={model} phase="rebuild" />
        </>
      )}
      {consumes.length > 0 && <p>Always renewed: {consumes.join(', ')}.</p>}
      {node.disturbs.map(({ position, rule, why }) => (
        <p key={position}>
          {positionName(model, position)}:{' '}
          <span className="strong">
            {{ renew: 'renewed with it', onCondition: 'looked at, renewed on condition', keep: 'kept' }[rule]}
          </span>
          , {why}
        </p>
      ))}
    </div>
  )
}

export function nameIn(list: { key: string; name: string }[], key: string): string {
  return list.find((each) => each.key === key)?.name ?? key
}
