/** What the keys do, as the guide has it too. */
export const KEYS: readonly { keys: string; does: string }[] = [
  { keys: 'Ctrl K', does: 'find a mod, plugin, record, screen or action' },
  { keys: 'Ctrl Z, Ctrl Shift Z', does: 'undo, redo' },
  { keys: '?', does: 'these keys' },
  { keys: '↑ ↓ Home End Page Up Page Down', does: 'walk a list' },
  { keys: 'letters', does: 'find a row by the beginning of its name' },
  { keys: 'Alt ↑, Alt ↓', does: 'move the row by one' },
  { keys: 'Shift with an arrow or a click, Ctrl click, Ctrl A', does: 'choose several' },
  { keys: '← →', does: 'fold a section, unfold it' },
  { keys: '/', does: 'search the screen' },
  { keys: 'Space', does: 'take a row up, put it down; take the answer that is focused' },
  { keys: 'Enter, double click', does: 'look closer; Enter takes the answer that is focused' },
  { keys: 'Shift F10, second button of the mouse', does: 'what can be done with the row' },
  { keys: 'Esc', does: 'leave what is carried, close' },
]
