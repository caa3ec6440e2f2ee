import type { WearView } from '@/core/wear'
import { LifeStrip } from '../graphics/LifeStrip'
import { PostMark, type PostMarkState } from '../graphics/PostMark'
import { DueFigures } from './DueFigures'
import { actInk, actWords, bandWords, inkOf, leftWords, limitWords, stateWords, usedWords } from './words'
import { Table, TableBody, TableCell, TableRow } from '../table/Table'

export const markOf: Record<WearView['clocks'][number]['state'], PostMarkState> = {
  healthy: 'healthy',
  dueSoon: 'dueSoon',
  over: 'overdue',
  overdue: 'overdue',
}
/** Every service item of a pump, most urgent first. */
export function ClockList({ view, today }: { view: WearView; today: string }) {
  return (
    <Table className="plain clocks">
      <caption className="visually-hidden">Services of {view.number}, most urgent first</caption>
      <TableBody>
        {view.clocks.map((clock) => (
          <TableRow key={`${clock.task} ${clock.where}`}>
            <TableCell>
              <span className="mark-line">
                <PostMark state={markOf[clock.state]} size={16} silent />
                <span>
                  {clock.name}
                  <span className="visually-hidden">, {stateWords[clock.state]}</span>
                  <span className="second block">{clock.where}</span>
                  {clock.signs.map((sign) => (
                    <span key={sign.id} className="second block brass">
                      {sign.words}
                    </span>
                  ))}
                  {limitWords(clock, view.unit) && (
                    <span className="second block">{limitWords(clock, view.unit)}</span>
                  )}
                </span>
              </span>
            </TableCell>
            <TableCell>
              <LifeStrip
                share={clock.share}
                early={clock.early}
                state={clock.state}
                width={128}
                says={`${usedWords(clock, view.unit)}, ${stateWords[clock.state]}`}
              />
            </TableCell>
            <TableCell className="num nowrap">
              {clock.assumed ? '~' : ''}
              {usedWords(clock, view.unit)}
            </TableCell>
            <TableCell className="num nowrap">
              <DueFigures clock={clock} unit={view.unit} pump={view.number} today={today}>
                <span className={`strong ${inkOf[clock.state]}`}>{leftWords(clock, view.unit, today)}</span>
              </DueFigures>
              <span className="second block">{bandWords(clock, today)}</span>
              <span className={`second block ${actInk(clock, today)}`}>{actWords(clock, today)}</span>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
