<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { turnWords, way } from '../../domain/turns'
  import { fine } from './fine'
  import { screwsOf } from './screws'
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
  const screws = $derived(screwsOf(at.switch.points as { deadband?: string }[]))
  const turned = (value: Value) =>
    screws
      .filter(([id]) => Number(value[id]))
      .map(([id, title]) => {
        const turns = Number(value[id])
        const whose = screws.length > 1 ? `${title.toLowerCase()} ` : ''
        return `${whose}${turnWords(Math.abs(turns))} ${way(turns)}`
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
              <span class="flex-1"
                >{title(entry.value)}{#if entry.value.seen_by === 'gauge'}<span
                    class="block text-sm text-neutral">off the wire</span
                  >{/if}</span
              >
              <span class="figure text-lg"
                >{fine(Number(entry.value.gauge_pa), grain, at.units)}</span
              >
            {:else}
              <span class="flex-1">Turned: {turned(entry.value)}</span>
            {/if}
            {#if at.may_change}<button
                type="button"
                class="btn min-h-12 btn-ghost"
                aria-expanded={open === entry.id}
                onclick={() => (open = open === entry.id ? '' : entry.id)}>Correct</button
              >{/if}
          </div>
          {#if open === entry.id}
            <div class="grid gap-2 pb-2">
              {#if entry.value.kind === 'read'}
                <Reading
                  title="{title(entry.value)}, corrected"
                  start={Number(entry.value.gauge_pa)}
                  {grain}
                  units={at.units}
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
