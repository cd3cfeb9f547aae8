<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import { turnWords, way } from '../../domain/turns'
  import { fine } from './fine'
  import Reading from './Reading.svelte'

  /** What was read and turned so far, each to be corrected with one press. */
  let {
    at,
    grain,
    names,
    busy,
    oncorrect,
  }: {
    at: Schemas['CalibrationOut']
    grain: number
    names: string[]
    busy: boolean
    oncorrect: (value: Record<string, unknown>, supersedes: string) => Promise<void>
  } = $props()
  type Value = Record<string, unknown>
  let open = $state('')
  const superseded = $derived(new Set(at.entries.map((each) => each.supersedes)))
  const rows = $derived(
    at.entries.filter(
      ({ id, value }) => !superseded.has(id) && (value.kind === 'read' || value.kind === 'turned'),
    ),
  )
  const title = (value: Value) =>
    `${names[value.point === 'upper' ? 1 : 0]} ${value.which === 'set' ? 'acted' : 'reset'} at`
  const turned = (value: Value) =>
    (['upper', 'lower'] as const)
      .filter((screw) => Number(value[screw]))
      .map((screw) => {
        const turns = Number(value[screw])
        return `${names.length > 1 ? `${screw} screw ` : ''}${turnWords(Math.abs(turns))} ${way(turns)}`
      })
      .join(', ')
  async function correct(entry: Schemas['CalibrationEntryOut'], value: Value) {
    await oncorrect(value, entry.id)
    open = ''
  }
</script>

{#if rows.length}
  <section aria-labelledby="readings" class="grid gap-1">
    <h2 id="readings" class="font-bold">Read so far</h2>
    <ol class="grid">
      {#each rows.toReversed() as entry (entry.id)}
        <li class="border-b border-base-300 py-1" data-testid="row">
          <div class="flex min-h-12 items-center gap-3">
            {#if entry.value.kind === 'read'}
              <span class="flex-1">{title(entry.value)}</span>
              <span class="figure text-lg"
                >{fine(Number(entry.value.gauge_pa), grain, preferences.units)}</span
              >
            {:else}
              <span class="flex-1">Turned: {turned(entry.value)}</span>
            {/if}
            <button
              type="button"
              class="btn min-h-12 btn-ghost"
              aria-expanded={open === entry.id}
              onclick={() => (open = open === entry.id ? '' : entry.id)}>Correct</button
            >
          </div>
          {#if open === entry.id}
            <div class="grid gap-2 pb-2">
              {#if entry.value.kind === 'read'}
                <Reading
                  title="{title(entry.value)}, corrected"
                  start={Number(entry.value.gauge_pa)}
                  {grain}
                  {busy}
                  onset={(gauge_pa) => correct(entry, { ...entry.value, gauge_pa })}
                />
              {/if}
              <button
                type="button"
                class="btn min-h-12"
                disabled={busy}
                onclick={() => correct(entry, { kind: 'voided' })}
                >It was not so: take it out</button
              >
            </div>
          {/if}
        </li>
      {/each}
    </ol>
  </section>
{/if}
