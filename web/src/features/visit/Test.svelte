<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** A test that is not always made: folded, with its fields, its faults and one button. */
  let {
    state: at,
    slot,
    title,
    keep,
    ready,
    onkeep,
    children,
  }: {
    state: VisitState
    slot: string
    title: string
    keep: string
    ready: boolean
    onkeep: () => void
    children: Snippet
  } = $props()
</script>

<details class="rounded-box border border-base-300 px-3">
  <summary class="flex min-h-14 cursor-pointer items-center font-bold">{title}</summary>
  <div class="grid gap-2 pb-3">
    {@render children()}
    {#each at.faultsAt(slot) as fault (fault.message)}<p class="text-sm text-error">
        {fault.message}
      </p>{/each}
    <button
      type="button"
      class="btn min-h-14 btn-primary"
      disabled={!at.open || !ready}
      onclick={onkeep}>{keep}</button
    >
  </div>
</details>
