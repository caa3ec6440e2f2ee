/** Forms on this page that hold something typed and not saved. */
const holding = new Set<string>()

/** Says that a form holds something unsaved; returns what says that it does no more. */
export function holdUnsaved(form: string): () => void {
  holding.add(form)
  return () => void holding.delete(form)
}

/** Whether the page may be left: asked only where something typed would be lost. */
export function mayLeave(): boolean {
  return holding.size === 0 || window.confirm('What you typed here is not saved yet. Leave it?')
}
