<script lang="ts">
  import Pencil from '@lucide/svelte/icons/pencil'
  import { preferences } from '../../domain/preferences.svelte'
  import type { BoardState } from '../../domain/board.svelte'
  import type { PlateKind } from '../../domain/plates'

  let { plate, board, onopen }: { plate: PlateKind; board: BoardState; onopen: () => void } =
    $props()
  const faults = $derived(board.faultsUnder(...plate.under))
  const usual = $derived(board.usualUnder(...plate.under))
  const [first, ...rest] = $derived(plate.summary(board.file!, preferences.units))
</script>

<button
  type="button"
  data-plate={plate.id}
  class="relative min-h-14 min-w-0 cursor-pointer rounded-box border bg-base-100 px-3 py-1.5 text-left {faults.length
    ? 'border-2 border-error'
    : 'border-base-300'}"
  onclick={onopen}
>
  <span class="block text-xs text-neutral">{plate.title}</span>
  <span class="figure block truncate leading-snug">{first}</span>
  <span class="block truncate text-xs">{rest.join(' ')}</span>
  {#if usual}
    <span class="block text-xs font-bold text-accent" data-testid="usual">usual value</span>
  {/if}
  {#if faults.length}
    <span class="block text-xs text-error">{faults.length} to correct</span>
  {/if}
  <Pencil size={13} class="absolute top-2 right-2 text-accent" aria-hidden="true" />
</button>
