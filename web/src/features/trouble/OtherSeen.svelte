<script lang="ts">
  import type { Schemas } from '../../api/client'
  import type { Seen } from '../../domain/trouble'
  import NextCheck from './NextCheck.svelte'

  /** What was seen or measured and nobody asked for: chosen from all that can be told. */
  let {
    others,
    disabled,
    fault,
    onanswer,
  }: {
    others: Schemas['ItemAsked'][]
    disabled: boolean
    fault: string
    onanswer: (seen: Seen[]) => void
  } = $props()
  let chosen = $state('')
  const one = $derived(others.find((each) => each.item === chosen))
  const sorted = $derived([...others].sort((a, b) => a.title.localeCompare(b.title)))
  const check = $derived(
    one && { items: [one], again: false, minutes: 0, first: '', tools: '', caution: '' },
  )
</script>

<label class="grid gap-1"
  >Something else was seen or measured
  <select
    class="select select-lg w-full"
    value={one?.item ?? ''}
    onchange={(event) => (chosen = event.currentTarget.value)}
    {disabled}
    data-testid="other-seen"
  >
    <option value="">Choose</option>
    {#each sorted as each (each.item)}<option value={each.item}>{each.title}</option>{/each}
  </select>
</label>
{#if check}
  {#key chosen}<NextCheck {check} {disabled} {fault} {onanswer} />{/key}
{/if}
