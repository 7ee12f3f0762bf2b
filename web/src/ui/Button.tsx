import clsx from 'clsx'
import type { ButtonHTMLAttributes, Ref } from 'react'

/** strong: the one thing to do on a screen; plain: the others; quiet: beside text. */
type ButtonLook = 'strong' | 'plain' | 'quiet' | 'warning'

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: ButtonLook
  /** Nothing but an icon in it: square, and it needs an aria-label. */
  icon?: boolean
  ref?: Ref<HTMLButtonElement>
}

const LOOKS: Record<ButtonLook, string> = {
  strong: 'border-strong bg-strong text-on-strong hover:opacity-90',
  plain: 'border-line bg-card hover:border-line-2 hover:bg-sunk',
  quiet: 'border-transparent text-ink-2 hover:bg-sunk hover:text-ink',
  warning: 'border-madder text-madder hover:bg-madder-soft',
}

export function Button({ look = 'plain', icon, className, type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={clsx(
        'inline-flex h-[30px] items-center justify-center gap-1.5 whitespace-nowrap rounded-[7px] border transition-colors disabled:opacity-50',
        icon ? 'w-[30px]' : 'px-2.5',
        LOOKS[look],
        className,
      )}
      {...rest}
    />
  )
}
