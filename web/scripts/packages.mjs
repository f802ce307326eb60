// Installs the packages that package-lock.json names, where those that are there are not they.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

const noted = 'node_modules/.lock-sha256'
const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex')
if (!existsSync(noted) || readFileSync(noted, 'utf8') !== wanted) {
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--prefer-offline'], { stdio: 'inherit' })
  writeFileSync(noted, wanted)
}
