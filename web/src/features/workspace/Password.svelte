<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem } from '../../api/client'
  import Faults from '../../ui/Faults.svelte'

  /** One's own password. */
  let { onchanged }: { onchanged: () => void } = $props()
  let old = $state('')
  let next = $state('')
  let faults = $state.raw<Fault[]>([])
  let problem = $state<Problem | undefined>()
  let changed = $state(false)
  async function change(event: SubmitEvent) {
    event.preventDefault()
    const got = await outcome(api.PUT('/api/password', { body: { old, new: next } }))
    ;[faults, problem] = parted(got.problem)
    changed = !got.problem
    if (!changed) return
    old = next = ''
    onchanged()
  }
</script>

<section aria-labelledby="password" class="grid gap-2">
  <h2 id="password" class="text-xl font-bold">Your password</h2>
  <form class="grid gap-3 sm:grid-cols-2" onsubmit={change}>
    <label class="grid content-start gap-1 text-sm">
      Old
      <input
        class="input input-lg w-full"
        type="password"
        autocomplete="current-password"
        bind:value={old}
      />
      <Faults {faults} path="old" />
    </label>
    <label class="grid content-start gap-1 text-sm">
      New
      <input
        class="input input-lg w-full"
        type="password"
        autocomplete="new-password"
        bind:value={next}
      />
      <Faults {faults} path="new" />
    </label>
    {#if problem}<p role="alert" class="text-error sm:col-span-2">
        {problem.title}. {problem.detail}
      </p>{/if}
    {#if changed}<p role="status" class="sm:col-span-2">
        Changed. Elsewhere you are signed out.
      </p>{/if}
    <button class="btn min-h-12 sm:w-fit" disabled={!old || !next}>Change it</button>
  </form>
</section>
