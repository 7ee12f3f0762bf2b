import ReactMarkdown from 'react-markdown'
import remarkGfm from 'remark-gfm'

/**
 * A text in Markdown (CommonMark with tables, lists to tick and plain addresses). HTML in it is shown as
 * text; addresses may lead to the web or to a mail program only.
 *
 * @param image the address of an image that the text names by a path; null shows its words instead
 */
export default function Markdown({ text, image }: { text: string; image?: (path: string) => string | null }) {
  return (
    <div className="prose">
      <ReactMarkdown
        remarkPlugins={[remarkGfm]}
        components={{
          a: ({ href, children }) => (
            <a href={href} target="_blank" rel="noreferrer">
              {children}
            </a>
          ),
          img: ({ src, alt }) => {
            const local =
              typeof src === 'string' && !/^[a-z]+:|^\/\//i.test(src) ? (image?.(src) ?? null) : null
            return local ? <img src={local} alt={alt ?? ''} /> : <em>[image: {alt || 'not shown'}]</em>
          },
        }}
      >
        {text}
      </ReactMarkdown>
    </div>
  )
}
