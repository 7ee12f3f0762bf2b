/** A plugin’s file name, its ending quieter than the rest. */
export function PluginName({ name }: { name: string }) {
  const dot = name.lastIndexOf('.')
  if (dot <= 0) return <>{name}</>
  return (
    <>
      <span className="font-medium">{name.slice(0, dot)}</span>
      <span className="text-ink-2">{name.slice(dot)}</span>
    </>
  )
}
