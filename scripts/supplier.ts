import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { answerOrder, supplierScenarios, type SupplierScenario } from '@/demo/supplier'

/** A stand-in for a supplier: takes an order file and writes its answers beside it. */
function main() {
  const [file, scenario = 'confirms', today = new Date().toISOString().slice(0, 10)] = process.argv.slice(2)
  if (file === undefined || !(scenario in supplierScenarios)) {
    console.log('npm run supplier -- order-0009.csv [scenario] [day]\n')
    for (const [name, words] of Object.entries(supplierScenarios))
      console.log(`  ${name.padEnd(12)} ${words}`)
    process.exit(file === undefined ? 0 : 1)
  }
  const answer = answerOrder(readFileSync(file, 'utf8'), scenario as SupplierScenario, today)
  const beside = (name: string, text: string) => {
    const to = path.join(path.dirname(file), `${name}-${path.basename(file)}`)
    writeFileSync(to, text)
    console.log(`wrote ${to}`)
  }
  beside('confirmation', answer.confirmation)
  beside('delivery-note', answer.deliveryNote)
  beside('price-list', answer.priceList)
}

main()
