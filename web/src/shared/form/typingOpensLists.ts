/**
 * A list that is searched by typing is searched from the first letter on: with the keyboard one comes to its label, and what
 * is typed there would go nowhere until the list is opened.
 */
export function typingOpensLists() {
  document.addEventListener('keydown', (event) => {
    if (event.key.length !== 1 || event.key === ' ' || event.ctrlKey || event.metaKey || event.altKey) return
    const label = event.target
    if (!(label instanceof HTMLElement) || !label.matches('.n-base-selection-label')) return
    // The letter itself arrives where the focus is by then, and opens the list.
    label.querySelector<HTMLInputElement>('.n-base-selection-input')?.focus()
  })
}
