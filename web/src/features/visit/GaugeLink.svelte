<script lang="ts">
  import { api, outcome } from '../../api/client'
  import type { VisitState } from '../../domain/visit.svelte'

  /** The way to the big gauge, at the steps where something is read off it, where the crew has one on the wire. */
  let { state: at }: { state: VisitState } = $props()
  const STEPS = ['watch', 'safe', 'set', 'prove']
  let wired = $state(false)
  $effect(() => {
    const path = { visit_id: at.id }
    void outcome(api.GET('/api/visits/{visit_id}/gauges', { params: { path } })).then(
      ({ data }) => (wired = (data ?? []).some((each) => each.wire)),
    )
  })
</script>

{#if wired && !at.offline && STEPS.includes(at.step)}
  <p class="mx-auto w-full max-w-2xl px-4 pt-3">
    <a class="btn min-h-12 w-full" href="/visits/{at.id}/gauge">Big gauge: let it read for you</a>
  </p>
{/if}
