'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { showAmount } from '@/core/stores'
import { showMinutes } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import type { SignatureInput, EndingLife, SigningView } from '@/core/sheets'
import { showNumber } from '@/core/units'
import { endReasons } from '@/core/wear'
import { Note } from '../../feedback/States'
import { ChoiceEntry, options, TextEntry } from '../../forms/entries'
import { EntryForm } from '../../forms/EntryForm'
import { ButtonLink } from '../../frame/ButtonLink'
import { Part } from '../../frame/Page'
import { LifeStrip } from '../../graphics/LifeStrip'

type Props = {
  sheetId: string
  signing: SigningView
  signer: string
  today: string
  trouble: string
  sign: (input: SignatureInput) => Promise<Outcome>
}

/** What signing will do, and why each old part came out; then the signature. */
export function SignSheet({ sheetId, signing, signer, trouble, sign }: Props) {
  const router = useRouter()
  const [values] = useState((): SignatureInput => ({
    id: uuid(),
    sheetId,
    seenUpTo: signing.upTo,
    ended: signing.ending.map(({ assemblyId, position, presumed }) => ({
      assemblyId,
      position,
      endReason: presumed,
      seenFailingOn: null,
    })),
    note: '',
    earlyCheckHours: signing.beginning.length > 0 ? String(signing.earlyCheckHours) : null,
  }))
  if (signing.notReady.length > 0)
    return (
      <div className="narrow stack">
        <Note tone="brass" title="Not ready to be signed yet.">
          <ul className="bench-list">
            {signing.notReady.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        </Note>
        <div>
          <ButtonLink href={`/sheets/${sheetId}`}>Back to the sheet</ButtonLink>
        </div>
      </div>
    )
  const short = signing.uses.filter((use) => use.short > 0)
  return (
    <div className="sign-page">
      <EntryForm
        schema="signatureSchema"
        values={values}
        action={sign}
        onDone={() => router.push(`/sheets/${sheetId}`)}
        submit={`Sign as ${signer}`}
        cancel={<ButtonLink href={`/sheets/${sheetId}`}>Back to the sheet</ButtonLink>}
      >
        <Part title="Lives that end" aside="why the old part came out can only be told now">
          {trouble && <p>The sheet was opened because: {trouble}</p>}
          {signing.ending.length === 0 ? (
            <p className="second">
              {signing.beginning.length === 0
                ? 'Nothing was renewed on this sheet.'
                : 'Nothing is known of what was there before.'}
            </p>
          ) : (
            <ul className="ended-lives">
              {signing.ending.map((life, index) => (
                <EndedLifeRow key={`${life.assemblyId} ${life.position}`} life={life} index={index} />
              ))}
            </ul>
          )}
        </Part>
        {signing.kept.length > 0 && (
          <Part title="Kept" aside="their lives run on">
            <ul className="line-list">
              {signing.kept.map((kept) => (
                <li key={`${kept.pump} ${kept.name}`}>
                  <span className="grow">
                    {kept.pump} {kept.name}
                  </span>
                  <span className="second">{kept.reason}</span>
                </li>
              ))}
            </ul>
          </Part>
        )}
        <Part title="Parts that leave the stores">
          {short.length > 0 && (
            <Note tone="brass" title="Count these bins.">
              More was used than the book had there: it is recorded all the same.
            </Note>
          )}
          {signing.uses.length === 0 && <p className="second">No part was noted.</p>}
          <ul className="line-list">
            {signing.uses.map((use, index) => (
              <li key={index}>
                <span className="grow">
                  {use.name} <span className="second">{use.lot}</span>
                </span>
                <span className="second">
                  {use.onHand !== null &&
                    (use.short > 0
                      ? `the book had ${showAmount(Math.max(0, use.onHand), use.unit)}`
                      : `${showAmount(use.onHand, use.unit)} there, ${showAmount(Math.round((use.onHand - use.quantity) * 1000) / 1000, use.unit)} left`)}
                </span>
                <span className={use.short > 0 ? 'strong brass' : 'strong'}>
                  {showAmount(use.quantity, use.unit)}
                </span>
              </li>
            ))}
          </ul>
          {signing.notUsed.length > 0 && (
            <Note tone="brass" title="Expected and not noted:">
              {signing.notUsed
                .map(
                  (part) =>
                    `${part.name} (${showAmount(part.used, part.unit)} of ${showAmount(part.quantity, part.unit)})`,
                )
                .join(', ')}
              . Note them on the sheet if they were used.
            </Note>
          )}
        </Part>
        <Part title="Sign">
          <p className="second">
            A signed sheet is not edited: what turns out wrong is corrected by a new entry that names it.
            Lives end and begin, stock moves and the visit closes together.
          </p>
          <p className="second">
            Worked {showMinutes(signing.minutes.worked)}, estimated {showMinutes(signing.minutes.estimated)}.
          </p>
          {signing.beginning.length > 0 && (
            <TextEntry
              name="earlyCheckHours"
              label="Early check after so many hours of work"
              inputMode="decimal"
              hint="It shows on Today; what fails before is linked to this service"
            />
          )}
          <TextEntry name="note" label="Note for the record" multiline optional />
        </Part>
      </EntryForm>
    </div>
  )
}

function EndedLifeRow({ life, index }: { life: EndingLife; index: number }) {
  const reason = useWatch({ name: `ended.${index}.endReason` }) as string
  const used = `${showNumber(Math.round(life.reached))}${life.limit === null ? '' : ` of ${showNumber(life.limit)}`}\u00a0${life.unit}`
  return (
    <li>
      <div>
        <span className="strong">{life.name}</span>{' '}
        <span className="second">
          {life.pump}
          {life.planned ? '' : ', besides what was planned'}
        </span>
        <div className="life-line">
          {life.limit !== null && (
            <LifeStrip
              share={life.reached / life.limit}
              early={life.early}
              state={life.state}
              says={`${used} when it came out`}
            />
          )}
          <span className="second">
            {used}, {showNumber(life.days)}&nbsp;days
          </span>
        </div>
      </div>
      <ChoiceEntry
        name={`ended.${index}.endReason`}
        label="Why it came out"
        about={life.name}
        options={options(endReasons)}
      />
      {reason === 'failed' && (
        <TextEntry
          name={`ended.${index}.seenFailingOn`}
          label="First seen failing"
          about={life.name}
          type="date"
          optional
        />
      )}
    </li>
  )
}
