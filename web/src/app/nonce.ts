/** Imported first: style elements that components make at run time carry this page's nonce. */
const nonce = document.querySelector<HTMLElement>('script[nonce], meta[property="csp-nonce"]')?.nonce ?? ''
const create = document.createElement.bind(document)

document.createElement = ((tag: string, options?: ElementCreationOptions) => {
  const element = create(tag, options)
  if (tag.toLowerCase() === 'style') element.nonce = nonce
  return element
}) as typeof document.createElement
