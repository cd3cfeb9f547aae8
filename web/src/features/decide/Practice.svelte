<script lang="ts">
  import type { Snippet } from 'svelte'
  import { withoutEntered, withValue } from '../../lib/file'
  import type { Row } from '../../lib/plates'
  import type { DecideState } from './decide.svelte'
  import Schools from './Schools.svelte'

  /** Whose practice this system follows, the workspace's or its own, and what it says. */
  let { table, row, names }: { table: DecideState; row: Snippet<[Row]>; names: string[] } = $props()
  const own = $derived(table.value('practice.follows') === 'own')
  const habits = $derived(table.habits)

  function follow(whose: 'own' | 'workspace') {
    if (whose === 'own') table.put('practice.follows', 'own')
    else if (habits) {
      const file = withoutEntered(table.file!, 'practice')
      table.change(withValue(file, 'practice', habits.practice))
    }
  }
</script>

<div role="group" aria-label="Whose practice" class="grid gap-2 sm:grid-cols-2">
  <button
    type="button"
    class="btn min-h-12 {own ? '' : 'btn-primary'}"
    aria-pressed={!own}
    onclick={() => follow('workspace')}>As {habits?.name ?? 'the workspace'} has it</button
  >
  <button type="button" class="btn min-h-12 {own ? 'btn-primary' : ''}" aria-pressed={own} onclick={() => follow('own')}
    >Its own</button
  >
</div>
{#if own}
  {@render row({ owner: 'Practice', name: 'reason', path: 'practice.reason' })}
{:else}
  <p class="text-sm text-neutral">
    {table.value('practice.reason') || 'No reason is written down.'}
    <a class="link" href="/schools">Change it for all systems</a>
  </p>
{/if}
<fieldset class="grid gap-4" disabled={!own}>
  <legend class="sr-only">The practice</legend>
  {#if table.result?.decision.schools.length}<Schools {table} />{/if}
  {#each names as name (name)}
    {@render row({ owner: 'Practice', name, path: `practice.${name}` })}
  {/each}
</fieldset>
