declare module 'occt-import-js' {
  const load: (options: { locateFile: (name: string) => string }) => Promise<unknown>
  export default load
}
declare module 'draco3d' {
  const draco3d: {
    createDecoderModule: (options: { locateFile: (name: string) => string }) => Promise<unknown>
  }
  export default draco3d
}
