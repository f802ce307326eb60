import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Refusal, type Job } from '../src/api/client'
import { useJobs } from '../src/stores/jobs'

function job(id: string, state: Job['state']): Job {
  return { id, state, title: id } as Job
}

let jobs: ReturnType<typeof useJobs>
beforeEach(() => {
  vi.restoreAllMocks()
  setActivePinia(createPinia())
  jobs = useJobs()
})

describe('long work', () => {
  it('is listed newest first, each once, under way or ended', () => {
    jobs.hear(job('import', 'RUNNING'))
    jobs.hear(job('file', 'QUEUED'))
    jobs.hear(job('import', 'DONE'))
    expect(jobs.all.map((j) => j.id)).toEqual(['file', 'import'])
    expect(jobs.underWay.map((j) => j.id)).toEqual(['file'])
    expect(jobs.ended.map((j) => j.id)).toEqual(['import'])
  })

  it('stays until it is dismissed', async () => {
    vi.spyOn(api, 'jobs').mockResolvedValue([])
    const gone = vi.spyOn(api, 'dismissJob').mockResolvedValue(undefined)
    jobs.hear(job('import', 'FAILED'))
    await jobs.dismiss(jobs.ended)
    expect(gone).toHaveBeenCalledWith('import')
    expect(jobs.all).toEqual([])
  })

  it('says why something could not be done, and shows how things are', async () => {
    vi.spyOn(api, 'pauseJob').mockRejectedValue(new Refusal(409, 'nothing', 'It is not under way.'))
    vi.spyOn(api, 'jobs').mockResolvedValue([job('file', 'DONE')])
    jobs.hear(job('file', 'RUNNING'))
    await jobs.pause(job('file', 'RUNNING'))
    expect(jobs.problem).toBe('It is not under way.')
    expect(jobs.all[0]?.state).toBe('DONE')
  })
})
