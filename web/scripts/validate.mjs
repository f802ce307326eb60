// Prints what the Khronos glTF validator says about a file: errors, warnings, and the messages of both.
import { readFileSync } from 'node:fs'
import validator from 'gltf-validator'

const report = await validator.validateBytes(new Uint8Array(readFileSync(process.argv[2])), { maxIssues: 50 })
const { numErrors, numWarnings, messages } = report.issues
console.log(`${numErrors} errors, ${numWarnings} warnings`)
for (const m of messages.filter((m) => m.severity < 2))
  console.log(`${m.code} ${m.pointer ?? ''} ${m.message}`)
