/** A field for the name of a folder on the server's machine. */
export function FolderField(props: {
  label: string
  value: string
  onChange: (folder: string) => void
  placeholder?: string
}) {
  return (
    <label className="flex flex-col gap-1 font-medium">
      {props.label}
      <input
        value={props.value}
        onChange={(e) => props.onChange(e.target.value)}
        spellCheck={false}
        placeholder={props.placeholder}
        className="mono h-9 rounded-[7px] border border-line-2 bg-card px-2.5"
      />
    </label>
  )
}
