// Validates glTF files: says what is wrong and exits with 1 when anything is, warnings and hints too.
import fs from 'node:fs'
import { validateBytes } from 'gltf-validator'

for (const file of process.argv.slice(2)) {
  const { issues } = await validateBytes(new Uint8Array(fs.readFileSync(file)))
  for (const m of issues.messages) console.log(`${file}: ${m.code} at ${m.pointer ?? m.offset}: ${m.message}`)
  if (issues.messages.length) process.exitCode = 1
}
