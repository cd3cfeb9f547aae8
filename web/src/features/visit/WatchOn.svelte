<script lang="ts">
  import Look from './Look.svelte'
  import TurnNow from './TurnNow.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Going on where the tool would stop: another look, another turn. */
  let { state: at }: { state: VisitState } = $props()
</script>

<details class="rounded-box border border-base-300 px-3">
  <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
    >Watch one more cycle, or turn on</summary
  >
  <div class="grid gap-3 pb-3">
    <Look state={at} correcting={undefined} onlogged={() => {}} />
    <TurnNow state={at} />
  </div>
</details>
