<script lang="ts">
  import { api, outcome, type Problem } from '../../api/client'

  /** What is due, as a file once, or as an address that a calendar keeps reading. */
  let address = $state('')
  let problem = $state<Problem | undefined>()
  $effect(() => {
    void outcome(api.GET('/api/feed')).then(({ data }) => (address = data?.address ?? ''))
  })
  async function make() {
    const got = await outcome(api.POST('/api/feed'))
    problem = got.problem
    address = got.data?.address ?? address
  }
  async function end() {
    ;({ problem } = await outcome(api.DELETE('/api/feed')))
    if (!problem) address = ''
  }
</script>

<section aria-labelledby="calendar" class="grid gap-2">
  <h2 id="calendar" class="text-xl font-bold">Calendar of what is due</h2>
  {#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
  <p>
    Once as a file, or as an address of your own that a calendar program keeps reading. Whoever has
    it sees what is due.
  </p>
  {#if address}<p class="figure rounded-box border border-base-300 bg-base-100 px-3 py-2 break-all">
      {address}
    </p>{/if}
  <div class="flex flex-wrap gap-2">
    <a class="btn min-h-12" href="/api/due.ics" download>File (.ics)</a>
    <button type="button" class="btn min-h-12" onclick={make}
      >{address ? 'Another address' : 'Make an address'}</button
    >
    {#if address}<button type="button" class="btn min-h-12" onclick={end}>Stop sharing</button>{/if}
  </div>
</section>
