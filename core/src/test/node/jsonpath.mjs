// Answers JSONPath queries by another implementation of RFC 9535, a line for each: the normalized paths of what a query
// finds in a document, or null where it is no query.
import { createInterface } from 'node:readline'
import { jsonpath } from 'json-p3'

for await (const line of createInterface({ input: process.stdin })) {
  const { query, document } = JSON.parse(line)
  try {
    console.log(JSON.stringify(jsonpath.query(query, document).nodes.map((node) => node.path)))
  } catch {
    console.log('null')
  }
}
