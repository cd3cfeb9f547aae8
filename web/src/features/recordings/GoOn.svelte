<script lang="ts">
  import type { Problem } from '../../api/client'
  import type { RecordingState } from './recording.svelte'
  import { sendRecording } from './send'

  /** A file that was broken off while it was sent: the same one goes on where it stopped. */
  let { at }: { at: RecordingState } = $props()
  const recording = $derived(at.recording!)
  let share = $state<number | undefined>()
  let problem = $state.raw<Problem | undefined>()

  async function goOn(files: FileList | null) {
    const file = files?.[0]
    if (!file) return
    share = 0
    const named = new File([file], recording.name)
    const sent = await sendRecording(
      recording.system,
      recording.id,
      named,
      (now) => (share = now),
      () => true,
    )
    share = undefined
    problem = sent.problem
    if (!problem) await at.load()
  }
</script>

<p class="my-2">
  The file is not all here: it was broken off while it was sent. Choose the same file, and it goes
  on where it stopped.
</p>
<label class="btn min-h-12 {share === undefined ? '' : 'btn-disabled'}">
  {share === undefined ? 'Go on sending' : `Sending ${Math.round(share * 100)} %`}
  <input
    type="file"
    class="sr-only"
    disabled={share !== undefined}
    onchange={(event) => void goOn(event.currentTarget.files)}
  />
</label>
{#if problem}
  <p class="mt-2 text-error">
    {problem.status === 409 ? 'This is another file.' : `${problem.title}. ${problem.detail}`}
  </p>
{/if}
