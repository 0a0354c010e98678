import { NButton, useMessage } from 'naive-ui'
import { h } from 'vue'

/** Says what was taken away, with the way back for a quarter of a minute. */
export function useUndo() {
  const message = useMessage()
  return (said: string, undo: () => void) => {
    const note = message.info(
      () =>
        h('span', [
          `${said} `,
          h(
            NButton,
            {
              size: 'small',
              onClick: () => {
                undo()
                note.destroy()
              },
            },
            () => 'Undo',
          ),
        ]),
      { duration: 15_000, closable: true },
    )
  }
}
