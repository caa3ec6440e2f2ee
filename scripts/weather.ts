import { createServer } from 'node:http'
import { weatherAnswer, weatherScenarios, type WeatherScenario } from '@/demo/weather'

/** A stand-in for a weather service: answers `/outlook?place=…&today=…` by its scenario. */
function main() {
  const [scenario, port = '4010'] = process.argv.slice(2)
  if (scenario === undefined || !(scenario in weatherScenarios)) {
    console.log('npm run weather -- coldSnap [port]\n')
    for (const [name, words] of Object.entries(weatherScenarios)) console.log(`  ${name.padEnd(12)} ${words}`)
    process.exit(scenario === undefined ? 0 : 1)
  }
  createServer((request, response) => {
    const { searchParams } = new URL(request.url ?? '/', 'http://localhost')
    const today = searchParams.get('today') ?? new Date().toISOString().slice(0, 10)
    const answer = weatherAnswer(
      scenario as WeatherScenario,
      searchParams.get('place') ?? '',
      today,
      `${today}T05:00:00.000Z`,
    )
    if (answer === null) return
    response.setHeader('content-type', 'application/json')
    response.end(JSON.stringify(answer))
  }).listen(Number(port), () => console.log(`Weather “${scenario}” on http://localhost:${port}/outlook`))
}

main()
