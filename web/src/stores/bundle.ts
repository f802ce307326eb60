/** A file with its path below what was dropped. */
export interface Dropped {
  path: string
  file: File
}

const NEVER_SENT = /(^|\/)(\.|__MACOSX\/|Thumbs\.db$|desktop\.ini$)/i

/** All files of a drop, those in folders too; files that only a system needs are left out. */
export async function filesOf(transfer: DataTransfer): Promise<Dropped[]> {
  const entries = [...transfer.items].map((i) => i.webkitGetAsEntry?.()).filter((e) => e != null)
  if (entries.length === 0) return plain(transfer.files)
  const found: Dropped[] = []
  for (const entry of entries) await collect(entry, found)
  return found.filter((d) => !NEVER_SENT.test(d.path))
}

export function plain(files: FileList): Dropped[] {
  return [...files].map((file) => ({ path: file.webkitRelativePath || file.name, file }))
}

async function collect(entry: FileSystemEntry, found: Dropped[]): Promise<void> {
  if (entry.isFile) {
    const file = await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail))
    found.push({ path: entry.fullPath.replace(/^\//, ''), file })
    return
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail))
    if (some.length === 0) return
    for (const inner of some) await collect(inner, found)
  }
}

const CRC_TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1
  return c >>> 0
})

async function crc32(file: Blob, onBytes: (n: number) => void): Promise<number> {
  let crc = 0xffffffff
  const reader = file.stream().getReader()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return (crc ^ 0xffffffff) >>> 0
    for (const b of value) crc = (CRC_TABLE[(crc ^ b) & 0xff] ?? 0) ^ (crc >>> 8)
    onBytes(value.length)
  }
}

const LOCAL = 0x04034b50
const DIRECTORY = 0x02014b50
const END = 0x06054b50
const UTF8_NAMES = 0x800

/** Several files as one stored zip; the files themselves stay where they are until they are sent. */
export async function bundle(files: Dropped[], onProgress: (share: number) => void): Promise<Blob> {
  const pieces: BlobPart[] = []
  const directory: BlobPart[] = []
  const total = files.reduce((sum, d) => sum + d.file.size, 0) || 1
  let read = 0
  let offset = 0
  let directorySize = 0
  for (const { path, file } of files) {
    const name = new TextEncoder().encode(path)
    const crc = await crc32(file, (n) => onProgress((read += n) / total))
    const common = (view: DataView, at: number) => {
      view.setUint16(at, 20, true)
      view.setUint16(at + 2, UTF8_NAMES, true)
      view.setUint32(at + 10, crc, true)
      view.setUint32(at + 14, file.size, true)
      view.setUint32(at + 18, file.size, true)
      view.setUint16(at + 22, name.length, true)
    }
    const local = new DataView(new ArrayBuffer(30))
    local.setUint32(0, LOCAL, true)
    common(local, 4)
    pieces.push(local.buffer, name, file)
    const entry = new DataView(new ArrayBuffer(46))
    entry.setUint32(0, DIRECTORY, true)
    entry.setUint16(4, 20, true)
    common(entry, 6)
    entry.setUint32(42, offset, true)
    directory.push(entry.buffer, name)
    directorySize += 46 + name.length
    offset += 30 + name.length + file.size
  }
  const end = new DataView(new ArrayBuffer(22))
  end.setUint32(0, END, true)
  end.setUint16(8, files.length, true)
  end.setUint16(10, files.length, true)
  end.setUint32(12, directorySize, true)
  end.setUint32(16, offset, true)
  return new Blob([...pieces, ...directory, end.buffer], { type: 'application/zip' })
}

/** The files of a zip that {@link bundle} made, each a piece of the whole. */
export async function unbundle(zip: Blob): Promise<Dropped[]> {
  const end = new DataView(await zip.slice(-22).arrayBuffer())
  const from = end.getUint32(16, true)
  const directory = await zip.slice(from, from + end.getUint32(12, true)).arrayBuffer()
  const view = new DataView(directory)
  const files: Dropped[] = []
  for (let at = 0; at + 46 <= directory.byteLength;) {
    const length = view.getUint16(at + 28, true)
    const path = new TextDecoder().decode(new Uint8Array(directory, at + 46, length))
    const start = view.getUint32(at + 42, true) + 30 + length
    const content = zip.slice(start, start + view.getUint32(at + 24, true))
    files.push({ path, file: new File([content], path.replace(/^.*\//, '')) })
    at += 46 + length
  }
  return files
}
