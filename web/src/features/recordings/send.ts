import { api, outcome, type Problem, type Schemas } from '../../api/client'

export type Row = Schemas['RecordingRow']

/** Sends a file in parts, those that are not there yet, and tells how much came; an unfinished one goes on where it stopped. */
export async function sendRecording(
  system: string,
  id: string,
  file: File,
  ontold: (share: number) => void,
  going: () => boolean,
): Promise<{ row?: Row; problem?: Problem }> {
  const begun = await outcome(
    api.PUT('/api/systems/{system_id}/recordings/{recording_id}', {
      params: { path: { system_id: system, recording_id: id } },
      body: { name: file.name, size: file.size },
    }),
  )
  if (begun.problem) return begun
  let row = begun.data
  const there = new Set(row.parts)
  const count = Math.ceil(file.size / row.part_size)
  for (let number = 0; number < count && going(); number++) {
    if (there.has(number)) continue
    const from = number * row.part_size
    const sent = await outcome(
      api.PUT('/api/recordings/{recording_id}/parts/{number}', {
        params: { path: { recording_id: id, number } },
        body: file.slice(from, from + row.part_size) as unknown as string,
        bodySerializer: (body) => body as unknown as Blob,
        headers: { 'Content-Type': 'application/octet-stream' },
      }),
    )
    if (sent.problem) return sent
    row = sent.data
    ontold((number + 1) / count)
  }
  return { row }
}
