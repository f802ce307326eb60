import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type Job } from '../src/api/client'
import { useImports } from '../src/stores/imports'
import { opened } from './opened'

let imports: ReturnType<typeof useImports>
beforeEach(() => {
  opened()
  imports = useImports()
})

function job(state: Job['state'], more: Partial<Job> = {}): Job {
  return { id: 'j', state, title: 'lamp.obj', ...more } as Job
}

/** An import that this page began and that waits for its turn. */
async function begun() {
  vi.spyOn(api, 'jobs').mockResolvedValue([job('QUEUED')])
  sessionStorage.setItem('zolvan-import', 'j')
  await imports.catchUp()
}

describe('news of an import', () => {
  it('that comes late does not lead back', async () => {
    await begun()
    for (const state of ['RUNNING', 'DONE', 'RUNNING'] as const) imports.hear(job(state))
    expect([imports.job?.state, imports.busy]).toEqual(['DONE', false])
  })

  it('of another one is not its own', async () => {
    imports.hear(job('RUNNING', { id: 'other' }))
    expect(imports.job).toBeNull()
    await begun()
    imports.hear(job('RUNNING'))
    imports.hear(job('FAILED', { id: 'other', problem: 'No.' }))
    expect([imports.job?.state, imports.problem]).toEqual(['RUNNING', ''])
  })

  it('asks once, however late its question is heard again', async () => {
    await begun()
    imports.hear(job('ASKING'))
    vi.spyOn(api, 'answerJob').mockResolvedValue(job('QUEUED'))
    await imports.answer('mm', 'y')
    expect(imports.job?.state).toBe('QUEUED')
    imports.hear(job('ASKING'))
    expect(imports.job?.state).toBe('QUEUED')
  })

  it('says why it failed', async () => {
    await begun()
    imports.hear(job('RUNNING'))
    imports.hear(job('FAILED', { problem: 'Line 4 of “lamp.obj” is no number.' }))
    expect([imports.problem, imports.busy]).toEqual(['Line 4 of “lamp.obj” is no number.', false])
  })

  it('is taken up where the page was left, and not that of another tab', async () => {
    vi.spyOn(api, 'jobs').mockResolvedValue([job('RUNNING', { id: 'of another tab' }), job('RUNNING')])
    sessionStorage.removeItem('zolvan-import')
    await imports.catchUp()
    expect(imports.job).toBeNull()
    sessionStorage.setItem('zolvan-import', 'j')
    await imports.catchUp()
    expect([imports.fileName, imports.job?.id, imports.busy]).toEqual(['lamp.obj', 'j', true])
  })
})

describe('a file that is too large', () => {
  it('is told before it is sent', async () => {
    vi.spyOn(api, 'limits').mockResolvedValue({ uploadBytes: 4 } as Awaited<ReturnType<typeof api.limits>>)
    await imports.start([{ file: new File(['solid lamp'], 'lamp.stl'), path: 'lamp.stl' }])
    expect(imports.problem).toContain('“lamp.stl” is larger than')
    expect([imports.busy, imports.job]).toEqual([false, null])
  })
})
