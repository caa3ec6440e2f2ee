import { recipe, type Antifreeze } from '@/core/winter'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import { showDegrees, showLitres } from './words'

type Props = { product: Antifreeze; yards: { name: string; designLowC: number | null }[]; marginC: number }

/** What 10 L in a zone that keeps 1 L of water take, in each yard. */
export function MixTable({ product, yards, marginC }: Props) {
  const known = yards.filter(({ designLowC }) => designLowC !== null)
  if (known.length === 0) return null
  return (
    <Table>
      <TableHead>
        <TableRow>
          <HeadCell>For a zone of 10 L that keeps 1 L of water</HeadCell>
          <HeadCell className="right">Needed</HeadCell>
          <HeadCell className="right">{product.sold === 'ready' ? 'As sold' : 'Concentrate'}</HeadCell>
          <HeadCell className="right">Water</HeadCell>
          <HeadCell>Beware</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {known.map(({ name, designLowC }) => {
          const mix = recipe({
            product,
            zoneLitres: 10,
            residualWaterLitres: 1,
            designLowC: designLowC!,
            marginC,
          })
          return (
            <TableRow key={name}>
              <TableCell>{name}</TableCell>
              <TableCell className="right">{showDegrees(designLowC! - marginC)}</TableCell>
              <TableCell className="right">{mix.ok ? showLitres(mix.concentrateLitres) : '–'}</TableCell>
              <TableCell className="right">
                {mix.ok ? (mix.waterLitres > 0 ? showLitres(mix.waterLitres) : 'none') : '–'}
              </TableCell>
              <TableCell className={mix.ok ? '' : 'oxide'}>
                {mix.ok ? mix.cautions.join(' ') : mix.why}
              </TableCell>
            </TableRow>
          )
        })}
      </TableBody>
    </Table>
  )
}
