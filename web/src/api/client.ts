import type { components } from './schema'

type Schemas = components['schemas']
export type Account = Schemas['Account']
export type ProjectCard = Schemas['ProjectCard']
export type Scene = Schemas['Scene']
export type ScenePart = Schemas['Part']
export type ProjectState = Schemas['ProjectState']
export type Look = Schemas['LookWire']
export type Material = Schemas['MaterialWire']
export type Physical = Schemas['PhysicalWire']
export type Texture = Schemas['Texture']
export type Preview = Schemas['Preview']
export type Stratum = Schemas['Stratum']
export type Why = Schemas['Why']
export type Trial = Schemas['Trial']
export type SchemeWire = Schemas['SchemeWire']
export type SchemeState = SchemeWire['state']
/** Which sides of a surface something is for. */
export type Sides = 'FRONT' | 'BACK' | 'BOTH'
export type Beginning = Schemas['NewScheme']['beginning']
export type RuleList = Schemas['RuleListWire']
export type Rule = Schemas['RuleWire']
export type RuleOutcome = Schemas['Outcome']
export type Colleague = Schemas['ColleagueWire']
export type Difference = Schemas['DifferenceWire']
export type Twins = Schemas['TwinsWire']
export type Moment = Schemas['MomentWire']
export type Parted = Schemas['SurroundingsWire']
export type FineRelief = Schemas['FineReliefWire']
export type Colour = Schemas['ColourWire']
export type Substance = Schemas['SubstanceWire']
export type Controls = Schemas['ControlsWire']
export type Control = Schemas['ControlWire']
export type ColourAround = Schemas['Around']
export type Beside = Schemas['Beside']
export type PictureColours = Schemas['PictureWire']
export type ReaderState = Schemas['ReaderState']
export type ColourReading = Schemas['Reading']
export type Palette = Schemas['PaletteWire']
export type SwatchText = Schemas['SwatchText']
export type NearMaterial = Schemas['Near']
export type Measure = Schemas['MeasureWire']
export type Unlike = Schemas['Unlike']
export type Facts = Schemas['FactsWire']
export type Libraries = Schemas['LibrariesWire']
export type Library = Schemas['LibraryWire']
export type LibraryRole = Library['role']
export type Drawer = Schemas['DrawerWire']
export type OtherAccount = Schemas['AccountWire']
export type OwnAccount = Schemas['Own']
export type OpenSession = Schemas['Open']
export type Noted = Schemas['Noted']
export type Letter = Schemas['Letter']
export type Member = Schemas['MemberWire']
export type Kit = Schemas['KitWire']
export type ItemNames = Schemas['ItemNames']
export type ItemName = Schemas['ItemName']
export type Standing = Schemas['StandingWire']
export type ReliefName = Schemas['ReliefWire']['name']
export type Article = Schemas['ArticleWire']
export type ArticleKind = Schemas['ArticleKind']
export type Judged = Schemas['JudgedWire']
export type SampleForm = 'TILE' | 'CLOTH' | 'VESSEL'
export type UnusedItem = Schemas['UnusedWire']
export type FacetValues = Schemas['FacetWire']
export type Facet = FacetValues['name']
export type Order = Schemas['OrderWire']['name']
export type Job = Schemas['Job']
export type JobQuestion = Schemas['JobQuestion']
export type ExportFormat = Schemas['ExportFormat']
export type Findings = Schemas['Findings']
export type Finding = Schemas['FindingWire']
export type Remedy = NonNullable<Finding['remedy']>
export type RoleGroup = Schemas['RoleGroup']
export type SavedView = Schemas['ViewWire']
export type Diagram = Schemas['Diagram']
/** How far a proof has come; the server sends it as an event. */
export interface ProofNews {
  proof: string
  share: number
  secondsLeft: number | null
  /** How many pictures there have been of it. */
  pictures: number
  done: boolean
  failed: boolean
}
export type Marked = Schemas['Marked']
/** What surfaces are told apart by. */
export type DiagramBy = 'MATERIAL' | 'ROLE' | 'GROUP'
export type LightSetup = Schemas['LightWire']
export type Note = Schemas['NoteWire']
export type RoleWord = Schemas['RoleWord']
export type Role = RoleWord['role']
export type PartName = Schemas['PartName']
export type SetWire = Schemas['SetWire']
export type Kind = Schemas['Kind']
export type SplitBy = 'PIECE' | 'DIRECTION'
export type Alike = Schemas['Alike']
export type RepairPreview = Schemas['RepairPreview']
export type Contact = Schemas['ContactWire']
export type Easing = Schemas['Easing']
export type Repairing = Schemas['Repairing']
export type Update = Schemas['UpdateWire']
export type UpdatePart = Schemas['UpdatePart']
export type DressingTable = Schemas['TableWire']
export type DressingRow = Schemas['DressingRow']
export type Fitting = Schemas['Fitting']
export type Leftovers = Schemas['Leftovers']
export type PlacedModel = Schemas['PlacedModel']
export type Belonging = PlacedModel['belonging']
export type HelperForm = Schemas['NewForm']['form']
export type Placing = Schemas['PlaceWire']
export type Repetition = Schemas['RepetitionWire']
/** Values of parameters by their names, and wishes about several of them. */
export type Values = Record<string, unknown>
export type Level = 'model' | 'set' | 'group' | 'part' | 'face'
/** Something that can hold a look. */
export interface Spot {
  level: Level
  target: number
}

/** A refusal by the server: a sentence for the designer and a stable type for programs. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    message: string,
    readonly field?: string,
  ) {
    super(message)
  }

  /** True where the request was not answered at all (server or database away, session ended) and may be sent again. */
  get passes(): boolean {
    return PASSING.has(this.status)
  }
}

/** No answer; signed out; a proxy without its server; the database away. */
const PASSING = new Set([0, 401, 502, 503, 504])

/** The most materials that are read at once. */
const PAGE = 500
const UNREACHABLE = 'Zolvan can’t be reached. Check that it is running and that you are connected.'
const GARBLED = 'Zolvan’s answer could not be read. Try again; if it happens again, reload the page.'

/**
 * State of the project that a command was given upon: its version, the scheme in view (empty for the first) and the command's
 * idempotency key, the same each time it is sent.
 */
export interface Seen {
  version: number
  scheme: string
  key: string
}

/** A random UUID; also where the page came over plain HTTP, in which browsers have no `randomUUID`. */
export function newKey(): string {
  const b = crypto.getRandomValues(new Uint8Array(16))
  b[6] = ((b[6] ?? 0) & 0x0f) | 0x40
  b[8] = ((b[8] ?? 0) & 0x3f) | 0x80
  const hex = [...b].map((x) => x.toString(16).padStart(2, '0')).join('')
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

type Heard = (status: number, type: string) => void
let heard: Heard = () => {}

/** Has somebody hear of every answer: its status, 0 where there was none, and the type of a refusal. */
export function onAnswer(listener: Heard) {
  heard = listener
}

/** The address of something that looks different in each scheme; an empty scheme is the project's first. */
function inScheme(scheme: string, path: string): string {
  if (!scheme) return path
  return `${path}${path.includes('?') ? '&' : '?'}scheme=${scheme}`
}

function csrfToken(): string {
  return decodeURIComponent(/(?:^|; )XSRF-TOKEN=([^;]*)/.exec(document.cookie)?.[1] ?? '')
}

export async function refusalOf(status: number, text: string): Promise<Refusal> {
  try {
    const problem = JSON.parse(text) as { type?: string; detail?: string; field?: string }
    const type = (problem.type ?? '').replace('urn:zolvan:problem:', '')
    return new Refusal(status, type, problem.detail ?? UNREACHABLE, problem.field)
  } catch {
    return new Refusal(status, 'unreachable', UNREACHABLE)
  }
}

interface Sending {
  body?: unknown
  seen?: Seen
  /** The scheme that a question is about; a command's is in `seen`. */
  scheme?: string
  /** Goes on its way even if the page is left meanwhile. */
  keepalive?: boolean
}

/** An answer's status and whatever `read` makes of it; a refusal where there is none, or not all of it comes. */
async function reach<T>(path: string, init: RequestInit, read: (r: Response) => Promise<T>): Promise<T> {
  let response: Response
  let refusal: Refusal
  try {
    response = await fetch(path, init)
    if (response.ok) {
      const content = await read(response)
      heard(response.status, '')
      return content
    }
    refusal = await refusalOf(response.status, await response.text())
  } catch (e) {
    refusal = e instanceof Refusal ? e : new Refusal(0, 'unreachable', UNREACHABLE)
  }
  heard(refusal.status, refusal.type)
  throw refusal
}

/** JSON of an answer; undefined for none. */
async function json<T>(response: Response): Promise<T> {
  const text = await response.text()
  try {
    return (text ? JSON.parse(text) : undefined) as T
  } catch {
    throw new Refusal(response.status, 'garbled', GARBLED)
  }
}

/** Fetches bytes as they are. */
export function bytesAt(path: string): Promise<ArrayBuffer> {
  return reach(path, {}, (r) => r.arrayBuffer())
}

async function putJpeg(path: string, jpeg: Blob): Promise<void> {
  const headers = { 'Content-Type': 'image/jpeg', 'X-XSRF-TOKEN': csrfToken() }
  await reach(path, { method: 'PUT', headers, body: jpeg }, (r) => r.text())
}

/** Says in an address that backs are meant; else it is fronts. */
function ofSide(sign: '?' | '&', behind: boolean): string {
  return behind ? `${sign}seen=back` : ''
}

function send<T>(
  method: string,
  path: string,
  { body, seen, scheme = seen?.scheme ?? '', keepalive = false }: Sending = {},
): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json' }
  if (body !== undefined) headers['Content-Type'] = 'application/json'
  if (method !== 'GET') headers['X-XSRF-TOKEN'] = csrfToken()
  if (seen) {
    headers['If-Match'] = `"${seen.version}"`
    headers['Idempotency-Key'] = `"${seen.key}"`
  }
  if (scheme) headers['X-Scheme'] = scheme
  const content = body === undefined ? null : JSON.stringify(body)
  return reach(path, { method, headers, body: content, keepalive }, (r) => json<T>(r))
}

/** Sends bytes as they are. */
function sendFile<T>(path: string, body: Blob, name: string): Promise<T> {
  const headers = {
    Accept: 'application/json',
    'Content-Type': 'application/octet-stream',
    'X-File-Name': encodeURIComponent(name),
    'X-XSRF-TOKEN': csrfToken(),
  }
  return reach(path, { method: 'POST', headers, body }, (r) => json<T>(r))
}

const project = (id: string) => `/api/projects/${id}`

export const api = {
  isFirstStart: () => send<{ first: boolean }>('GET', '/api/session/start').then((s) => s.first),
  currentAccount: () => send<Account>('GET', '/api/session'),
  /** @param next the password to be used from now on; null where the present one stays */
  signIn: (login: string, password: string, next: string | null) =>
    send<Account>('POST', '/api/session', { body: { login, password, next } }),
  createFirst: (account: Schemas['NewAccount']) =>
    send<Account>('POST', '/api/session/first', { body: account }),
  writeLetter: (login: string) => send<undefined>('POST', '/api/session/forgotten', { body: { login } }),
  resetPassword: (word: string, password: string) =>
    send<Account>('POST', '/api/session/reset', { body: { word, password } }),
  ownAccount: () => send<OwnAccount>('GET', '/api/account'),
  changePassword: (present: string, next: string) =>
    send<OwnAccount>('PUT', '/api/account/password', { body: { present, next } }),
  endOtherSessions: () => send<OwnAccount>('DELETE', '/api/account/sessions'),
  endSession: (id: string) => send<undefined>('DELETE', `/api/account/sessions/${id}`),
  signOut: () => send<undefined>('DELETE', '/api/session'),

  limits: () => send<Schemas['Limits']>('GET', '/api/limits'),
  projects: () => send<ProjectCard[]>('GET', '/api/projects'),
  deleteProject: (id: string) => send<undefined>('DELETE', project(id)),
  controls: () => send<Controls>('GET', '/api/library/controls'),
  nearest: (linear: number[]) => send<NearMaterial[]>('POST', '/api/library/nearest', { body: { linear } }),
  find: (id: string, sought: Partial<Schemas['Sought']>) =>
    send<Schemas['FoundWire']>('POST', `${project(id)}/library/find`, { body: sought }),
  recent: () => send<Material[]>('GET', '/api/library/recent'),
  drawRelief: (id: string, relief: Schemas['NewRelief']) =>
    send<Schemas['ReliefMade']>('POST', `${project(id)}/reliefs`, { body: relief }),
  articles: (words: string, kind: string, from: number) =>
    send<Schemas['CatalogueWire']>(
      'GET',
      `/api/supplier/articles?words=${encodeURIComponent(words)}&kind=${encodeURIComponent(kind)}&from=${from}`,
    ),
  judged: (article: string) => send<Judged>('GET', `/api/supplier/articles/${article}/photograph`),
  photoAddress: (article: string) => `/api/supplier/photos/${article}`,
  bringArticle: (id: string, seen: Seen, article: string, how: Schemas['Bringing']) =>
    send<ProjectState>('POST', `${project(id)}/supplier/${article}`, { seen, body: how }),
  accounts: () => send<OtherAccount[]>('GET', '/api/accounts'),
  shutAccount: (id: string, on: boolean) =>
    send<OtherAccount[]>('POST', `/api/accounts/${id}/shut`, { body: { on } }),
  makeAdministrator: (id: string, on: boolean) =>
    send<OtherAccount[]>('POST', `/api/accounts/${id}/administrator`, { body: { on } }),
  replacePassword: (id: string) =>
    send<Schemas['OneTime']>('POST', `/api/accounts/${id}/password`).then((p) => p.password),
  endSessionsOf: (id: string) => send<undefined>('DELETE', `/api/accounts/${id}/sessions`),
  audit: (before?: number) =>
    send<Noted[]>('GET', `/api/accounts/audit?count=50${before ? `&before=${before}` : ''}`),
  letters: () => send<Letter[]>('GET', '/api/accounts/letters?count=50'),
  removeLetter: (id: number) => send<undefined>('DELETE', `/api/accounts/letters/${id}`),
  createAccount: (account: Schemas['AccountFor']) =>
    send<Account>('POST', '/api/accounts', { body: account }),
  libraries: () => send<Libraries>('GET', '/api/libraries'),
  createLibrary: (name: string) => send<{ id: string }>('POST', '/api/libraries', { body: { name } }),
  renameLibrary: (library: string, name: string) =>
    send<undefined>('PUT', `/api/libraries/${library}/name`, { body: { name } }),
  deleteLibrary: (library: string) => send<undefined>('DELETE', `/api/libraries/${library}`),
  members: (library: string) => send<Member[]>('GET', `/api/libraries/${library}/members`),
  putMember: (library: string, login: string, role: LibraryRole) =>
    send<undefined>('PUT', `/api/libraries/${library}/members`, { body: { login, role } }),
  removeMember: (library: string, account: string) =>
    send<undefined>('DELETE', `/api/libraries/${library}/members/${account}`),
  addDrawer: (library: string, name: string, parent: string | null) =>
    send<{ id: string }>('POST', `/api/libraries/${library}/drawers`, { body: { name, parent } }),
  renameDrawer: (library: string, drawer: string, name: string) =>
    send<undefined>('PUT', `/api/libraries/${library}/drawers/${drawer}/name`, { body: { name } }),
  moveDrawer: (library: string, drawer: string, into: string | null, at: number) =>
    send<undefined>('PUT', `/api/libraries/${library}/drawers/${drawer}/place`, { body: { into, at } }),
  deleteDrawer: (library: string, drawer: string) =>
    send<undefined>('DELETE', `/api/libraries/${library}/drawers/${drawer}`),
  keepInLibrary: (id: string, library: string, drawer: string | null, materials: string[]) =>
    send<{ items: string[] }>('POST', `${project(id)}/library/kept`, {
      body: { library, drawer, materials },
    }),
  standing: (id: string, material: string) =>
    send<Standing>('GET', `${project(id)}/materials/${material}/kept`),
  updateKept: (id: string, material: string) =>
    send<undefined>('POST', `${project(id)}/materials/${material}/kept`),
  takeKept: (id: string, seen: Seen, material: string) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/as-kept`, { seen }),
  describeItem: (item: string, description: Schemas['Description']) =>
    send<undefined>('PUT', `/api/libraries/items/${item}`, { body: description }),
  moveItems: (library: string, items: string[], drawer: string | null) =>
    send<undefined>('POST', `/api/libraries/${library}/items/place`, { body: { items, drawer } }),
  approveItems: (library: string, items: string[], approved: boolean) =>
    send<undefined>('POST', `/api/libraries/${library}/items/approval`, { body: { items, approved } }),
  removeItems: (library: string, items: string[]) =>
    send<undefined>('POST', `/api/libraries/${library}/items/removal`, { body: { items } }),
  previewItemNames: (library: string, names: ItemNames) =>
    send<ItemName[]>('POST', `/api/libraries/${library}/items/names/preview`, { body: names }),
  renameItems: (library: string, names: ItemNames) =>
    send<undefined>('POST', `/api/libraries/${library}/items/names`, { body: names }),
  alikes: (library: string) => send<Material[][]>('GET', `/api/libraries/${library}/alikes`),
  mergeItems: (library: string, keep: string, gone: string[]) =>
    send<undefined>('POST', `/api/libraries/${library}/merges`, { body: { keep, gone } }),
  unusedItems: (library: string) => send<UnusedItem[]>('GET', `/api/libraries/${library}/unused`),
  makeKit: (library: string, project: string, name: string, materials: string[]) =>
    send<{ id: string }>('POST', `/api/libraries/${library}/kits`, { body: { project, name, materials } }),
  deleteKit: (library: string, kit: string) =>
    send<undefined>('DELETE', `/api/libraries/${library}/kits/${kit}`),
  setStarter: (kit: string | null) => send<undefined>('PUT', '/api/libraries/starter', { body: { kit } }),
  layKit: (id: string, seen: Seen, kit: string) =>
    send<ProjectState>('POST', `${project(id)}/kits/${kit}`, { seen }),
  tellFacts: (id: string, seen: Seen, material: string, facts: Facts) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/facts`, { seen, body: facts }),
  setSubstance: (id: string, seen: Seen, material: string, of: string | null, withLook: boolean) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/substance`, {
      seen,
      body: { of, withLook },
    }),
  /** How unlike a material looks from another; nothing while either's picture is being made. */
  unlike: (id: string, one: string, other: string, times: number) =>
    send<Unlike | undefined>('GET', `${project(id)}/materials/${one}/unlike/${other}?times=${times}`),
  measure: (id: string, material: string) =>
    send<Measure>('GET', `${project(id)}/materials/${material}/measure`),
  palettes: () => send<Palette[]>('GET', '/api/palettes'),
  createPalette: (name: string) => send<Palette>('POST', '/api/palettes', { body: { name } }),
  changePalette: (id: string, name: string, swatches: SwatchText[]) =>
    send<Palette>('PUT', `/api/palettes/${id}`, { body: { name, swatches } }),
  deletePalette: (id: string) => send<undefined>('DELETE', `/api/palettes/${id}`),
  readPalette: (file: File) => sendFile<Palette>('/api/palettes/files', file, file.name),
  paletteFile: (id: string, format: string) => `/api/palettes/${id}/file/${format}`,
  substances: () => send<Substance[]>('GET', '/api/library/substances'),
  /** Everything that may be chosen from, page by page. */
  library: async (): Promise<Material[]> => {
    const all: Material[] = []
    let page: Material[]
    do {
      page = await send<Material[]>('GET', `/api/library/materials?from=${all.length}&count=${PAGE}`)
      all.push(...page)
    } while (page.length === PAGE)
    return all
  },
  jobs: () => send<Job[]>('GET', '/api/jobs'),
  answerJob: (id: string, unit: string | null, upAxis: string | null) =>
    send<Job>('POST', `/api/jobs/${id}/answer`, { body: { unit, upAxis } }),
  /** Begins to write a project into a file. */
  writeProjectFile: (id: string) => send<Job>('POST', `${project(id)}/file`),
  pauseJob: (id: string) => send<Job>('POST', `/api/jobs/${id}/pause`),
  resumeJob: (id: string) => send<Job>('POST', `/api/jobs/${id}/resume`),
  dismissJob: (id: string) => send<undefined>('DELETE', `/api/jobs/${id}`),
  resultAddress: (id: string, number: number) => `/api/jobs/${id}/results/${number}`,
  cancelJob: (id: string) => send<Job>('POST', `/api/jobs/${id}/cancel`),

  /** The upload that a project was made of; only where its surfaces can be cut again. */
  original: async (id: string): Promise<Blob> => {
    const response = await fetch(`${project(id)}/upload`)
    if (!response.ok) throw await refusalOf(response.status, await response.text())
    return response.blob()
  },
  scene: (id: string) => send<Scene>('GET', `${project(id)}/scene`),
  update: (id: string) => send<Update | undefined>('GET', `${project(id)}/update`),
  updateScene: (id: string) => send<Scene>('GET', `${project(id)}/update/scene`),
  applyUpdate: (id: string, seen: Seen, pairs: { newer: number; older: number | null }[]) =>
    send<ProjectState>('POST', `${project(id)}/update`, { seen, body: { pairs } }),
  leaveUpdate: (id: string) => send<undefined>('DELETE', `${project(id)}/update`),
  dressingTables: () => send<DressingTable[]>('GET', '/api/dressing-tables'),
  dressingRows: (table: string) => send<DressingRow[]>('GET', `/api/dressing-tables/${table}`),
  changeDressing: (table: string, rows: DressingRow[]) =>
    send<DressingRow[]>('PUT', `/api/dressing-tables/${table}`, { body: { rows } }),
  saveDressing: (id: string, scheme: string, name: string) =>
    send<DressingTable>('POST', `${project(id)}/dressing-tables`, { scheme, body: { name } }),
  fitDressing: (id: string, scheme: string, table: string) =>
    send<Fitting[]>('GET', `${project(id)}/dressing-tables/${table}`, { scheme }),
  applyDressing: (id: string, seen: Seen, table: string) =>
    send<ProjectState>('POST', `${project(id)}/dressing-tables/${table}/apply`, { seen }),
  deleteDressing: (table: string) => send<undefined>('DELETE', `/api/dressing-tables/${table}`),
  leftovers: (id: string) => send<Leftovers>('GET', `${project(id)}/leftovers`),
  cleanUp: (id: string, seen: Seen, going: Schemas['Going']) =>
    send<ProjectState>('POST', `${project(id)}/leftovers/remove`, { seen, body: going }),
  addForm: (id: string, seen: Seen, form: HelperForm) =>
    send<ProjectState>('POST', `${project(id)}/models`, { seen, body: { form } }),
  changeModel: (id: string, seen: Seen, model: number, details: Schemas['ModelDetails']) =>
    send<ProjectState>('PUT', `${project(id)}/models/${model}`, { seen, body: details }),
  place: (id: string, seen: Seen, model: number, to: Placing) =>
    send<ProjectState>('PUT', `${project(id)}/models/${model}/place`, { seen, body: to }),
  setDown: (id: string, seen: Seen, model: number) =>
    send<ProjectState>('POST', `${project(id)}/models/${model}/rest`, { seen }),
  repeatModel: (id: string, seen: Seen, model: number, how: Repetition) =>
    send<ProjectState>('POST', `${project(id)}/models/${model}/copies`, { seen, body: how }),
  removeModel: (id: string, seen: Seen, model: number) =>
    send<ProjectState>('DELETE', `${project(id)}/models/${model}`, { seen }),
  findings: (id: string) => send<Findings>('GET', `${project(id)}/findings`),
  suggestions: (id: string, part: number) =>
    send<Schemas['Suggestions']>('GET', `${project(id)}/parts/${part}/suggestions`),
  roles: (id: string) => send<RoleGroup[]>('GET', `${project(id)}/roles`),
  giveRoles: (id: string, seen: Seen, roles: { part: number; role: Role | null }[]) =>
    send<ProjectState>('POST', `${project(id)}/parts/roles`, { seen, body: { roles } }),
  inspect: (id: string) => send<Job>('POST', `${project(id)}/findings`),
  state: (id: string, scheme: string) => send<ProjectState>('GET', `${project(id)}/state`, { scheme }),
  why: (id: string, scheme: string, part: number, span: number, behind: boolean) =>
    send<Why>('GET', `${project(id)}/why?part=${part}&span=${span}${ofSide('&', behind)}`, { scheme }),
  diagram: (id: string, scheme: string, by: DiagramBy) =>
    send<Diagram>('GET', `${project(id)}/schemes/diagram?by=${by}`, { scheme }),
  ruleLists: () => send<RuleList[]>('GET', '/api/rule-lists'),
  createRules: (name: string) => send<RuleList>('POST', '/api/rule-lists', { body: { name } }),
  changeRules: (list: string, rules: Rule[]) =>
    send<RuleList>('PUT', `/api/rule-lists/${list}`, { body: { rules } }),
  deleteRules: (list: string) => send<undefined>('DELETE', `/api/rule-lists/${list}`),
  tryRules: (id: string, scheme: string, list: string) =>
    send<RuleOutcome[]>('GET', `${project(id)}/rule-lists/${list}`, { scheme }),
  applyRules: (id: string, seen: Seen, list: string) =>
    send<ProjectState>('POST', `${project(id)}/rule-lists/${list}/apply`, { seen }),
  team: (id: string) => send<Colleague[]>('GET', `${project(id)}/team`),
  joinTeam: (id: string, login: string) =>
    send<Colleague[]>('POST', `${project(id)}/team`, { body: { login } }),
  leaveTeam: (id: string, account: string) => send<Colleague[]>('DELETE', `${project(id)}/team/${account}`),
  look: (id: string, what: Schemas['Looking']) =>
    send<undefined>('POST', `${project(id)}/presence`, { body: what }),
  /** @param view in which one may look into more than always */
  outerAddress: (id: string, part: number, view: string | null) =>
    `${project(id)}/parts/${part}/outer${view ? `?view=${view}` : ''}`,
  lockParts: (id: string, seen: Seen, parts: number[], on: boolean) =>
    send<ProjectState>('POST', `${project(id)}/parts/locked`, { seen, body: { parts, on } }),
  keepView: (id: string, seen: Seen, view: Schemas['ViewWanted']) =>
    send<ProjectState>('POST', `${project(id)}/views`, { seen, body: view }),
  takeView: (id: string, seen: Seen, view: string, camera: Schemas['ViewCamera']) =>
    send<ProjectState>('POST', `${project(id)}/views/${view}/camera`, { seen, body: camera }),
  nameView: (id: string, seen: Seen, view: string, name: string) =>
    send<ProjectState>('POST', `${project(id)}/views/${view}/name`, { seen, body: { name } }),
  seeThrough: (id: string, seen: Seen, view: string, parts: number[]) =>
    send<ProjectState>('POST', `${project(id)}/views/${view}/looked-into`, { seen, body: { parts } }),
  dropView: (id: string, seen: Seen, view: string) =>
    send<ProjectState>('DELETE', `${project(id)}/views/${view}`, { seen }),
  setLight: (id: string, seen: Seen, light: string, values: Schemas['LightValues']) =>
    send<ProjectState>('PUT', `${project(id)}/lights/${light}`, { seen, body: values }),
  nameLight: (id: string, seen: Seen, light: string, name: string) =>
    send<ProjectState>('POST', `${project(id)}/lights/${light}/name`, { seen, body: { name } }),
  copyLight: (id: string, seen: Seen, light: string, copy: Schemas['LightCopy']) =>
    send<ProjectState>('POST', `${project(id)}/lights/${light}/copies`, { seen, body: copy }),
  removeLight: (id: string, seen: Seen, light: string) =>
    send<ProjectState>('DELETE', `${project(id)}/lights/${light}`, { seen }),
  writeNote: (id: string, seen: Seen, note: Schemas['NoteWanted']) =>
    send<ProjectState>('POST', `${project(id)}/notes`, { seen, body: note }),
  rewriteNote: (id: string, seen: Seen, note: string, text: string) =>
    send<ProjectState>('POST', `${project(id)}/notes/${note}/text`, { seen, body: { text } }),
  settleNote: (id: string, seen: Seen, note: string, settled: boolean) =>
    send<ProjectState>('POST', `${project(id)}/notes/${note}/settled`, { seen, body: { settled } }),
  dropNote: (id: string, seen: Seen, note: string) =>
    send<ProjectState>('DELETE', `${project(id)}/notes/${note}`, { seen }),
  viewPictureAddress: (id: string, view: string) => `${project(id)}/views/${view}/picture`,
  standpoint: (id: string, wanted: Schemas['StandWanted']) =>
    send<Schemas['Stand']>('POST', `${project(id)}/standpoint`, { body: wanted }),
  edgeWay: (id: string, wanted: Schemas['WayWanted']) =>
    send<Schemas['Way']>('POST', `${project(id)}/own-faces/ways`, { body: wanted }),
  cutFace: (id: string, seen: Seen, wanted: Schemas['FaceWanted']) =>
    send<ProjectState>('POST', `${project(id)}/own-faces`, { seen, body: wanted }),
  nameFace: (id: string, seen: Seen, face: number, name: string) =>
    send<ProjectState>('POST', `${project(id)}/own-faces/${face}/name`, { seen, body: { name } }),
  joinFace: (id: string, seen: Seen, face: number) =>
    send<ProjectState>('POST', `${project(id)}/own-faces/${face}/join`, { seen }),
  lookInto: (id: string, seen: Seen, parts: number[], on: boolean) =>
    send<ProjectState>('POST', `${project(id)}/parts/looked-into`, { seen, body: { parts, on } }),
  /** Where no spot is named, of the one that shows. */
  trial: (
    id: string,
    scheme: string,
    spot: Spot | null,
    region: { part: number; span: number },
    material: string,
    {
      steps = 0,
      side = null,
      behind = false,
    }: { steps?: number; side?: Sides | null; behind?: boolean } = {},
  ) =>
    send<Trial>(
      'GET',
      `${project(id)}/trial?part=${region.part}&span=${region.span}&material=${material}&steps=${steps}` +
        (side ? `&side=${side}` : '') +
        ofSide('&', behind) +
        (spot ? `&level=${spot.level}&target=${spot.target}` : ''),
      { scheme },
    ),
  preview: (id: string, scheme: string, part: number, span: number, values: Values, behind: boolean) =>
    send<Preview>('POST', `${project(id)}/preview${ofSide('?', behind)}`, {
      scheme,
      body: { part, span, material: null, only: null, here: null, values },
    }),
  previewOwn: (id: string, material: string, values: Values) =>
    send<Preview>('POST', `${project(id)}/preview`, {
      body: { part: 0, span: 0, material, only: null, here: null, values },
    }),
  adjustOwn: (id: string, seen: Seen, material: string, values: Values) =>
    send<ProjectState>('POST', `${project(id)}/adjustments`, {
      seen,
      body: { part: 0, span: 0, material, only: null, here: null, values },
    }),
  removeMaterial: (id: string, seen: Seen, material: string) =>
    send<ProjectState>('DELETE', `${project(id)}/materials/${material}`, { seen }),
  assign: (id: string, seen: Seen, given: Schemas['Assignment'], behind: boolean) =>
    send<ProjectState>('POST', `${project(id)}/assignments${ofSide('?', behind)}`, { seen, body: given }),
  adjust: (
    id: string,
    seen: Seen,
    { part, span }: { part: number; span: number },
    only: number[] | null,
    here: boolean,
    values: Values,
    behind: boolean,
  ) =>
    send<ProjectState>('POST', `${project(id)}/adjustments${ofSide('?', behind)}`, {
      seen,
      body: { part, span, material: null, only, here, values },
    }),
  meetEdges: (id: string, seen: Seen, where: Schemas['Meeting'], behind: boolean) =>
    send<ProjectState>('POST', `${project(id)}/meeting-edges${ofSide('?', behind)}`, { seen, body: where }),
  copyMaterial: (id: string, seen: Seen, material: string, copy: Schemas['NewCopy']) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/copies`, { seen, body: copy }),
  putOnTop: (id: string, seen: Seen, spot: Spot, side: Sides, onTop: boolean) =>
    send<ProjectState>('POST', `${project(id)}/on-top`, { seen, body: { ...spot, side, onTop } }),
  asInBase: (id: string, seen: Seen, spot: Spot, side: Sides) =>
    send<ProjectState>('POST', `${project(id)}/as-in-base`, { seen, body: { ...spot, side } }),
  takeOff: (id: string, seen: Seen, from: Schemas['TakingOff'], behind: boolean) =>
    send<ProjectState>('POST', `${project(id)}/taken-off${ofSide('?', behind)}`, { seen, body: from }),
  replaceMaterial: (id: string, seen: Seen, material: string, how: Schemas['Replacement']) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/replacement`, { seen, body: how }),
  keepCandidate: (id: string, seen: Seen, candidate: Schemas['Candidate']) =>
    send<ProjectState>('POST', `${project(id)}/candidates`, { seen, body: candidate }),
  dropCandidate: (id: string, seen: Seen, candidate: Schemas['Candidate']) =>
    send<ProjectState>('POST', `${project(id)}/candidates/dropped`, { seen, body: candidate }),
  combineCandidates: (id: string, seen: Seen, of: Spot[]) =>
    send<ProjectState>('POST', `${project(id)}/candidates/schemes`, { seen, body: { of } }),
  createScheme: (id: string, seen: Seen, wanted: Schemas['NewScheme']) =>
    send<ProjectState>('POST', `${project(id)}/schemes`, { seen, body: wanted }),
  describeScheme: (id: string, seen: Seen, other: string, text: Schemas['SchemeText']) =>
    send<ProjectState>('PUT', `${project(id)}/schemes/${other}`, { seen, body: text }),
  orderSchemes: (id: string, seen: Seen, schemes: string[]) =>
    send<ProjectState>('PUT', `${project(id)}/schemes/order`, { seen, body: { schemes } }),
  deleteScheme: (id: string, seen: Seen, other: string) =>
    send<ProjectState>('DELETE', `${project(id)}/schemes/${other}`, { seen }),
  differences: (id: string, one: string, other: string) =>
    send<Difference[]>('GET', `${project(id)}/schemes/${one}/differences?other=${other}`),
  nearTwins: (id: string, scheme: string) =>
    send<Twins[]>('GET', `${project(id)}/schemes/near-twins`, { scheme }),
  history: (id: string, before?: number) =>
    send<Moment[]>('GET', `${project(id)}/history${before === undefined ? '' : `?before=${before}`}`),
  nameMoment: (id: string, moment: number, name: string) =>
    send<undefined>('PUT', `${project(id)}/history/${moment}/name`, { body: { name } }),
  backTo: (id: string, seen: Seen, moment: number, force: boolean) =>
    send<ProjectState>('POST', `${project(id)}/history/${moment}/return?force=${force}`, { seen }),
  makeIndependent: (id: string, seen: Seen, material: string) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/independence`, { seen }),
  renameMaterial: (id: string, seen: Seen, material: string, name: string) =>
    send<ProjectState>('POST', `${project(id)}/materials/${material}/name`, { seen, body: { name } }),
  changeDetails: (id: string, seen: Seen, details: { name: string; client: string; unit: string }) =>
    send<ProjectState>('POST', `${project(id)}/details`, { seen, body: details }),
  previewNames: (id: string, wanted: Schemas['NamesWanted']) =>
    send<PartName[]>('POST', `${project(id)}/parts/names/preview`, { body: wanted }),
  renameParts: (id: string, seen: Seen, names: PartName[]) =>
    send<ProjectState>('POST', `${project(id)}/parts/names`, { seen, body: { names } }),
  sets: (id: string) => send<SetWire[]>('GET', `${project(id)}/sets`),
  kinds: (id: string, set: number, by: SplitBy) =>
    send<Kind[]>('GET', `${project(id)}/sets/${set}/kinds?by=${by}`),
  split: (id: string, seen: Seen, set: number, by: SplitBy) =>
    send<ProjectState>('POST', `${project(id)}/sets/${set}/split`, { seen, body: { by } }),
  mergeSets: (id: string, seen: Seen, sets: number[]) =>
    send<ProjectState>('POST', `${project(id)}/sets/merge`, { seen, body: { sets } }),
  renameSet: (id: string, seen: Seen, set: number, name: string) =>
    send<ProjectState>('POST', `${project(id)}/sets/${set}/name`, { seen, body: { name } }),
  moveParts: (id: string, seen: Seen, parts: number[], to: 'own' | 'home') =>
    send<ProjectState>('POST', `${project(id)}/parts/sets`, { seen, body: { parts, to } }),
  previewRepair: (id: string, wanted: Repairing) =>
    send<RepairPreview>('POST', `${project(id)}/parts/repairs/preview`, { body: wanted }),
  repair: (id: string, seen: Seen, wanted: Repairing) =>
    send<ProjectState>('POST', `${project(id)}/parts/repairs`, { seen, body: wanted }),
  previewEasing: (id: string, wanted: Easing) =>
    send<RepairPreview>('POST', `${project(id)}/parts/edges/preview`, { body: wanted }),
  ease: (id: string, seen: Seen, wanted: Easing) =>
    send<ProjectState>('POST', `${project(id)}/parts/edges`, { seen, body: wanted }),
  moveBy: (id: string, seen: Seen, motion: Schemas['Motion']) =>
    send<ProjectState>('POST', `${project(id)}/parts/places`, { seen, body: motion }),
  changeFaces: (id: string, seen: Seen, part: number, faces: number[], act: 'flip' | 'split') =>
    send<ProjectState>('POST', `${project(id)}/parts/${part}/faces`, { seen, body: { faces, act } }),
  /** Those surfaces of some parts that nothing lies on. */
  seenOf: (id: string, scheme: string, parts: number[]) =>
    send<Schemas['SeenSurface'][]>('POST', `${project(id)}/parts/seen`, { scheme, body: { parts } }),
  similar: (id: string, part: number) => send<Alike[]>('GET', `${project(id)}/parts/${part}/similar`),
  contact: (id: string, one: number, other: number) =>
    send<Schemas['ContactWire']>('GET', `${project(id)}/parts/contact?one=${one}&other=${other}`),
  tidyNames: (id: string) => send<PartName[]>('GET', `${project(id)}/parts/names/tidy`),
  plainColours: (id: string, by: 'set' | 'shape') =>
    send<string[]>('GET', `${project(id)}/parts/colours?by=${by}`),
  turnParts: (id: string, seen: Seen, parts: number[], turn: 'flip' | 'outward') =>
    send<ProjectState>('POST', `${project(id)}/parts/sides`, { seen, body: { parts, turn } }),
  undo: (id: string, seen: Seen, force: boolean) =>
    send<ProjectState>('POST', `${project(id)}/undo?force=${force}`, { seen }),
  redo: (id: string, seen: Seen, force: boolean) =>
    send<ProjectState>('POST', `${project(id)}/redo?force=${force}`, { seen }),

  colourTyped: (text: string) => send<Colour>('POST', '/api/colours/typed', { body: { text } }),
  colourPlaced: (lightness: number, chroma: number, hue: number, undertoneOf: number[] | null = null) =>
    send<Colour>('POST', '/api/colours/placed', { body: { lightness, chroma, hue, undertoneOf } }),
  coloursAround: (linear: number[]) =>
    send<ColourAround>('POST', '/api/colours/around', { body: { linear } }),
  colourWheel: (lightness: number) =>
    send<Schemas['Wheel']>('GET', `/api/colours/wheel?lightness=${lightness}`),
  coloursBeside: (one: number[], other: number[]) =>
    send<Beside>('POST', '/api/colours/beside', { body: { one, other } }),
  reader: () => send<ReaderState>('GET', '/api/colours/reader'),
  calibrateReader: () => send<ReaderState>('POST', '/api/colours/reader/calibration'),
  readColour: (sample: string) =>
    send<ColourReading>('POST', '/api/colours/reader/readings', { body: { sample } }),
  /** Looks at a picture; `area` is x, y, width and height in shares of it. */
  pictureColours: (picture: Blob, area: number[] = [0, 0, 1, 1]) =>
    sendFile<PictureColours>(
      `/api/colours/picture?x=${area[0]}&y=${area[1]}&width=${area[2]}&height=${area[3]}`,
      picture,
      'picture',
    ),

  thumbnailAddress: (id: string) => `${project(id)}/thumbnail`,
  putThumbnail: (id: string, jpeg: Blob) => putJpeg(`${project(id)}/thumbnail`, jpeg),
  putViewPicture: (id: string, view: string, jpeg: Blob) =>
    putJpeg(`${project(id)}/views/${view}/picture`, jpeg),
  exports: (id: string, scheme: string) => send<ExportFormat[]>('GET', `${project(id)}/exports`, { scheme }),
  materialFileAddress: (id: string, ending: string, material?: string) =>
    `${project(id)}/material-files/${ending}${material ? `?material=${material}` : ''}`,
  exportAddress: (id: string, scheme: string, ending: string) =>
    inScheme(scheme, `${project(id)}/exports/${ending}`),
  /** On a form, or on a region where that is null. */
  closerAddress: (
    projectId: string,
    scheme: string,
    material: string,
    form: SampleForm | null,
    region: { part: number; span: number },
  ) =>
    inScheme(
      scheme,
      `${project(projectId)}/materials/${material}/closer?` +
        (form ? `form=${form}` : `part=${region.part}&span=${region.span}`),
    ),
  beginProof: (id: string, scheme: string, wanted: Schemas['ProofWanted']) =>
    send<Schemas['ProofBegun']>('POST', `${project(id)}/proof`, { scheme, body: wanted }),
  proofAddress: (id: string, proof: string) => `${project(id)}/proof/${proof}`,
  endProof: (id: string) => send<undefined>('DELETE', `${project(id)}/proof`, { keepalive: true }),
  chipAddress: (projectId: string, material: Material) =>
    `${project(projectId)}/materials/${material.id}/chip?${material.chip}`,
  assetAddress: (projectId: string, sha256: string) => `${project(projectId)}/assets/${sha256}`,
  relief: (projectId: string, sha256: string) =>
    send<FineRelief>('GET', `${project(projectId)}/assets/${sha256}/relief`),
  surroundings: (name: string) => send<Parted>('GET', `/api/surroundings/${name}`),
  /** Brings a picture to the project's materials. */
  addPicture: (projectId: string, picture: Blob) =>
    sendFile<{ sha256: string }>(`${project(projectId)}/pictures`, picture, 'picture'),
  ageingAddress: (projectId: string, part: number, corrodes: boolean) =>
    `${project(projectId)}/parts/${part}/ageing?corrodes=${corrodes}`,
  shapeAddress: (projectId: string, scheme: string, part: number) =>
    inScheme(scheme, `${project(projectId)}/parts/${part}/shape`),
  leavesAddress: (projectId: string, part: number, span: number, size: number) =>
    `${project(projectId)}/parts/${part}/leaves?span=${span}&size=${size}`,
  libraryAssetAddress: (sha256: string) => `/api/library/assets/${sha256}`,
}

/**
 * What a file sent into a project is for: other triangles of its surfaces, its materials, a newer state of the model, or a
 * model beside it that is designed or only seen with it.
 */
export type Purpose = 'triangles' | 'materials' | 'update' | 'late' | 'design' | 'surroundings'

const ASKED: Record<Purpose, string> = {
  triangles: '',
  materials: '&materials=true',
  update: '&update=true',
  late: '&late=true',
  design: '&beside=DESIGN',
  surroundings: '&beside=SURROUNDINGS',
}

/** Sends a file as it is, telling how far it has got; resolves to the import job. */
export function upload(
  name: string,
  file: Blob,
  onProgress: (share: number) => void,
  signal: AbortSignal,
  into: string,
  purpose: Purpose = 'triangles',
): Promise<Job> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('POST', into ? `/api/imports?project=${into}${ASKED[purpose]}` : '/api/imports')
    request.setRequestHeader('X-XSRF-TOKEN', csrfToken())
    request.setRequestHeader('X-File-Name', encodeURIComponent(name))
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.upload.onprogress = (e) => {
      if (e.lengthComputable) onProgress(e.loaded / e.total)
    }
    request.onerror = () => reject(new Refusal(0, 'unreachable', 'The upload was cut off. Try it once more.'))
    request.onabort = () => reject(new Refusal(0, 'cancelled', 'The upload was called off.'))
    request.onload = async () => {
      if (request.status === 202) resolve(JSON.parse(request.responseText) as Job)
      else reject(await refusalOf(request.status, request.responseText))
    }
    signal.addEventListener('abort', () => request.abort())
    request.send(file)
  })
}
