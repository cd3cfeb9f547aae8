<script lang="ts">
  import type { Problem } from '../../api/client'
  import FileButton from './FileButton.svelte'
  import type { RecordingState } from './recording.svelte'
  import { sendRecording } from './send'

  /** A file that was broken off while it was sent: the same one goes on where it stopped. */
  let { at }: { at: RecordingState } = $props()
  const recording = $derived(at.recording!)
  let share = $state<number | undefined>()
  let problem = $state.raw<Problem | undefined>()

  async function goOn(file: File) {
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
<FileButton word="Go on sending" {share} onfile={(file) => void goOn(file)} />
{#if problem}
  <p class="mt-2 text-error">
    {problem.status === 409 ? 'This is another file.' : `${problem.title}. ${problem.detail}`}
  </p>
{/if}
