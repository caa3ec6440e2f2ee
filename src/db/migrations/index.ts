import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { ground } from './0001-ground'
import { wear } from './0002-wear'
import { visits } from './0003-visits'
import { sheets } from './0004-sheets'
import { stores } from './0005-stores'
import { skips } from './0006-skips'
import { spells } from './0007-spells'
import { rules } from './0008-rules'
import { marks } from './0009-marks'
import { signs } from './0010-signs'
import { feeds } from './0011-feeds'
import { documents } from './0012-documents'
import { practicesAndTools } from './0013-practices-tools'
import { sheetPhotos } from './0014-sheet-photos'
import { wholeActs } from './0015-whole-acts'
import { endedSessions } from './0016-ended-sessions'
import { sheetDigests } from './0018-sheet-digests'
import { dateOrder } from './0019-date-order'
import { factsAndProducts } from './0020-facts-products'
import { storesAndOrders } from './0021-stores-orders'
import { winter } from './0022-winter'
import { crew } from './0023-crew'
import { approving } from './0024-approving'
import { touches } from './0017-touches'

/** In the order they run. A migration that has shipped is never changed; a new one is added. */
export const migrations: RunnableMigration<QueryInterface>[] = [
  ground,
  wear,
  visits,
  sheets,
  stores,
  skips,
  spells,
  rules,
  marks,
  signs,
  feeds,
  documents,
  practicesAndTools,
  sheetPhotos,
  wholeActs,
  endedSessions,
  touches,
  sheetDigests,
  dateOrder,
  factsAndProducts,
  storesAndOrders,
  winter,
  crew,
  approving,
]
