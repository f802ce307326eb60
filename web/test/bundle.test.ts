import { crc32 } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { bundle, filesOf, unbundle, type Dropped } from '../src/stores/bundle'

function dropped(path: string, text: string): Dropped {
  return { path, file: new File([text], path.replace(/^.*\//, '')) }
}

describe('several files', () => {
  const files = [
    dropped('Lamp/lamp.obj', 'v 0 0 0\n'.repeat(50)),
    dropped('Lamp/Bücher/größe.png', ''),
    dropped('a', '123456789'),
  ]

  it('come out of the zip as they went in, by their paths', async () => {
    const back = await unbundle(await bundle(files, () => undefined))
    expect(back.map((d) => d.path)).toEqual(files.map((d) => d.path))
    for (const [i, d] of back.entries()) expect(await d.file.text()).toBe(await files[i]?.file.text())
  })

  it('are a zip as others read it: checked, stored, with names in UTF-8', async () => {
    const zip = Buffer.from(await (await bundle(files, () => undefined)).arrayBuffer())
    let at = 0
    for (const { path, file } of files) {
      const content = Buffer.from(await file.arrayBuffer())
      expect([zip.readUInt32LE(at), zip.readUInt16LE(at + 6), zip.readUInt16LE(at + 8)]).toEqual([
        0x04034b50, 0x800, 0,
      ])
      expect(zip.readUInt32LE(at + 14)).toBe(crc32(content))
      const name = zip.readUInt16LE(at + 26)
      expect(zip.toString('utf8', at + 30, at + 30 + name)).toBe(path)
      at += 30 + name + content.length
    }
    expect(zip.readUInt32LE(at)).toBe(0x02014b50)
    expect(zip.readUInt32LE(zip.length - 6)).toBe(at)
    expect(zip.readUInt16LE(zip.length - 12)).toBe(files.length)
  })

  it('tell how far they have been read', async () => {
    const shares: number[] = []
    await bundle(files, (share) => shares.push(share))
    expect(shares.at(-1)).toBe(1)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
  })
})

/** A folder that gives its entries a few at a time, as browsers do. */
function folder(entries: object[]) {
  const rest = [...entries]
  return {
    isFile: false,
    createReader: () => ({ readEntries: (give: (e: object[]) => void) => give(rest.splice(0, 2)) }),
  }
}
function file(fullPath: string) {
  return { isFile: true, fullPath, file: (give: (f: File) => void) => give(new File(['x'], fullPath)) }
}

describe('a folder that is dropped', () => {
  it('is taken whole, however deep, without what only a system needs', async () => {
    const deep = folder([file('/Lamp/t/a.png'), file('/Lamp/t/b.png'), file('/Lamp/t/c.png')])
    const lamp = folder([
      file('/Lamp/lamp.obj'),
      file('/Lamp/.DS_Store'),
      deep,
      file('/__MACOSX/Lamp/lamp.obj'),
    ])
    const items = [{ webkitGetAsEntry: () => lamp }]
    const found = await filesOf({ items, files: [] } as unknown as DataTransfer)
    expect(found.map((d) => d.path)).toEqual([
      'Lamp/lamp.obj',
      'Lamp/t/a.png',
      'Lamp/t/b.png',
      'Lamp/t/c.png',
    ])
  })
})
