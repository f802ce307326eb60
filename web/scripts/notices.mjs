// Collects the licences of the packages that end up in the built front end into dist/third-party-web.txt.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'

const own = JSON.parse(readFileSync(new URL('../package.json', import.meta.url)))
const root = new URL('../node_modules/', import.meta.url)
const wanted = [...Object.keys(own.dependencies), '@pmndrs/assets']
const seen = new Map()

while (wanted.length > 0) {
  const name = wanted.pop()
  const folder = new URL(`${name}/`, root)
  if (seen.has(name) || !existsSync(folder)) continue
  const json = JSON.parse(readFileSync(new URL('package.json', folder)))
  const file = readdirSync(folder).find((f) => /^(licen[cs]e|copying)/i.test(f))
  seen.set(
    name,
    `${name} ${json.version} — ${json.license}\n\n${file ? readFileSync(new URL(file, folder), 'utf8') : ''}`,
  )
  wanted.push(...Object.keys(json.dependencies ?? {}))
}
const text = [...seen.keys()].sort().map((name) => seen.get(name).trim())
writeFileSync(
  new URL('../dist/third-party-web.txt', import.meta.url),
  text.join(`\n\n${'-'.repeat(80)}\n\n`) + '\n',
)
