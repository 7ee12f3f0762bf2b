import { toJsxRuntime } from 'hast-util-to-jsx-runtime'
import css from 'highlight.js/lib/languages/css'
import ini from 'highlight.js/lib/languages/ini'
import javascript from 'highlight.js/lib/languages/javascript'
import json from 'highlight.js/lib/languages/json'
import lua from 'highlight.js/lib/languages/lua'
import markdown from 'highlight.js/lib/languages/markdown'
import properties from 'highlight.js/lib/languages/properties'
import python from 'highlight.js/lib/languages/python'
import xml from 'highlight.js/lib/languages/xml'
import yaml from 'highlight.js/lib/languages/yaml'
import { createLowlight } from 'lowlight'
import Papa from 'papaparse'
import { useMemo } from 'react'
import { Fragment, jsx, jsxs } from 'react/jsx-runtime'
import type { Schema } from '../api/client'
import { asProblems } from '../api/client'
import Markdown from '../ui/Markdown'
import { Problems } from '../ui/Problems'
import { Loading } from '../ui/States'
import { count, list, number } from '../ui/text'
import { ending, type Kind } from './kind'
import { resolved } from './part'
import { fileAddress, usePluginHeader, useText } from './queries'

const light = createLowlight({ css, ini, javascript, json, lua, markdown, properties, python, xml, yaml })
const LANGUAGES: Record<string, string> = {
  cfg: 'ini',
  css: 'css',
  html: 'xml',
  ini: 'ini',
  js: 'javascript',
  json: 'json',
  jsonl: 'json',
  lua: 'lua',
  md: 'markdown',
  properties: 'properties',
  py: 'python',
  svg: 'xml',
  xml: 'xml',
  yaml: 'yaml',
  yml: 'yaml',
}
/** Colouring more than this would hold the page up. */
const MOST_COLOURED = 60_000
const MOST_LINES = 4_000
const MOST_ROWS = 500

/** A file as it can best be looked at. */
export function Preview(props: {
  workspace: number
  mod: number
  path: string
  kind: Kind
  /** Of its content, so that an edit shows. */
  version?: string
}) {
  if (props.kind === 'image') return <Picture {...props} />
  if (props.kind === 'plugin') return <PluginHeader {...props} />
  return <TextPreview {...props} />
}

function Picture({ workspace, mod, path }: { workspace: number; mod: number; path: string }) {
  return (
    <div className="grid min-h-0 flex-1 place-items-center overflow-auto p-4">
      <img
        src={fileAddress(workspace, mod, path)}
        alt={path}
        className="max-h-full max-w-full bg-[repeating-conic-gradient(var(--sunk)_0_25%,var(--card)_0_50%)] bg-[length:16px_16px] [image-rendering:pixelated]"
      />
    </div>
  )
}

function PluginHeader({ workspace, mod, path }: { workspace: number; mod: number; path: string }) {
  const header = usePluginHeader(workspace, mod, path)
  if (header.isPending) return <Loading what="the plugin" />
  if (header.isError)
    return (
      <div className="p-4">
        <Problems problems={asProblems(header.error)} />
      </div>
    )
  const h: Schema['HeaderView'] = header.data
  const rows: [string, string][] = [
    ['title', h.title || 'none'],
    ['records', number(h.records)],
    ['stage', String(h.stage)],
    ['masters', list(h.masters) || 'none'],
    ['author', h.author || 'not said'],
    ['version', h.version || 'not said'],
  ]
  return (
    <div className="p-4">
      {h.about && <p className="mb-2">{h.about}</p>}
      <dl className="grid grid-cols-[88px_1fr] gap-x-3 gap-y-1">
        {rows.map(([term, text]) => (
          <div key={term} className="contents">
            <dt className="text-ink-3">{term}</dt>
            <dd className="break-words">{text}</dd>
          </div>
        ))}
      </dl>
    </div>
  )
}

function TextPreview({
  workspace,
  mod,
  path,
  kind,
  version,
}: {
  workspace: number
  mod: number
  path: string
  kind: Kind
  version?: string
}) {
  const text = useText(workspace, mod, path, version)
  if (text.isPending) return <Loading what="the text" />
  if (text.isError)
    return (
      <div className="p-4">
        <Problems problems={asProblems(text.error)} />
      </div>
    )
  if (kind === 'table') return <Table text={text.data.text} tabs={ending(path) === 'tsv'} />
  if (kind === 'markdown') {
    const folder = path.slice(0, path.lastIndexOf('/') + 1)
    return (
      <div className="min-h-0 flex-1 overflow-y-auto p-4">
        <Markdown text={text.data.text} image={(src) => fileAddress(workspace, mod, resolved(folder, src))} />
      </div>
    )
  }
  return <Code text={text.data.text} language={LANGUAGES[ending(path)]} />
}

function Code({ text, language }: { text: string; language?: string }) {
  const shown = useMemo(() => {
    const pretty = language === 'json' ? prettyJson(text) : text
    const lines = pretty.split('\n')
    return lines.length > MOST_LINES ? `${lines.slice(0, MOST_LINES).join('\n')}\n` : pretty
  }, [text, language])
  const tree = useMemo(
    () => (language && shown.length <= MOST_COLOURED ? light.highlight(language, shown) : null),
    [shown, language],
  )
  return (
    <pre className="mono code min-h-0 flex-1 overflow-auto p-4 leading-[1.55]">
      <code>{tree ? toJsxRuntime(tree, { Fragment, jsx, jsxs }) : shown}</code>
      {shown.length < text.length && language !== 'json' && (
        <p className="mt-3 text-ink-2">The first {number(MOST_LINES)} lines. Download a copy for the rest.</p>
      )}
    </pre>
  )
}

function prettyJson(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2)
  } catch {
    return text
  }
}

function Table({ text, tabs }: { text: string; tabs: boolean }) {
  const rows = useMemo(
    () => Papa.parse<string[]>(text, { delimiter: tabs ? '\t' : '', skipEmptyLines: true }).data,
    [text, tabs],
  )
  const [head, ...body] = rows
  if (!head) return <p className="p-4 text-ink-2">It is empty.</p>
  return (
    <div className="min-h-0 flex-1 overflow-auto">
      <table className="w-full border-collapse text-left">
        <thead>
          <tr>
            {head.map((h, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two columns may have one name
              <th key={i} className="sticky top-0 border-line border-b bg-card px-3 py-1.5 font-semibold">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {body.slice(0, MOST_ROWS).map((row, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row has no other name
            <tr key={i} className="border-line border-b">
              {head.map((_, c) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: as the columns
                <td key={c} className="num px-3 py-1">
                  {row[c]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {body.length > MOST_ROWS && (
        <p className="px-3 py-2 text-ink-2">
          The first {number(MOST_ROWS)} of {count(body.length, 'row')}.
        </p>
      )}
    </div>
  )
}
