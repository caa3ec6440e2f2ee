const closeStages = () => (globalThis as unknown as { closeStages: () => Promise<void> }).closeStages()
export default closeStages
