/** Runs once before the server answers: the database is brought up to date here. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs') {
    const { start } = await import('@/services/start')
    await start()
  }
}
