<script lang="ts">
  import type { Schemas } from '../../api/client'
  import Asked from './Asked.svelte'
  import type { VisitState } from '../../domain/visit.svelte'
  import YesNo from '../../ui/YesNo.svelte'

  /** What may be wrong, by the part that one looks at; one press for a part that is all right. */
  let { state: at, fields }: { state: VisitState; fields: readonly Schemas['ReadField'][] } =
    $props()
  const parts = $derived([...new Set(fields.map((field) => field.where))])
  const of = (part: string) => fields.filter((field) => field.where === part)
  const open = (part: string) => of(part).filter((field) => at.value(field.slot) == null)

  /** What one press may answer: never what was wrong last time. */
  const easy = (part: string) => open(part).filter((field) => field.last !== true)
  const stood = (part: string) => open(part).filter((field) => field.last === true)

  function clear(part: string) {
    for (const field of easy(part)) void at.put(field.slot, false, false)
    void at.flush()
  }
  /** In what condition most of a part is looked at: said once. */
  const condition = (part: string) => of(part)[0]?.when ?? ''
  function note(field: Schemas['ReadField']): string {
    const last = typeof field.last === 'boolean' ? `last time ${field.last ? 'yes' : 'no'}` : ''
    const when = field.when === condition(field.where) ? '' : field.when
    return [when, last].filter(Boolean).join(' · ')
  }
</script>

{#each parts as part (part)}
  <section
    aria-label={part}
    class="grid gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-3"
  >
    <div class="flex items-center justify-between gap-2">
      <h2 class="font-bold">
        {part}
        {#if condition(part)}<span class="block text-sm font-normal">{condition(part)}</span>{/if}
      </h2>
      {#if easy(part).length && at.open}
        <button type="button" class="btn min-h-12" onclick={() => clear(part)}
          >{easy(part).length === of(part).length ? 'All good' : 'The rest is good'}</button
        >
      {/if}
    </div>
    {#if stood(part).length && at.open}
      <p class="text-sm">
        Wrong last time, look by itself: {stood(part)
          .map((field) => field.title)
          .join(' · ')}.
      </p>
    {/if}
    {#each of(part) as field (field.slot)}
      <div data-slot={field.slot}>
        <YesNo
          title={field.title}
          note={note(field)}
          value={at.value(field.slot)}
          disabled={!at.open}
          onset={(flag) => at.put(field.slot, flag)}
        />
        <Asked state={at} slot={field.slot} />
      </div>
    {/each}
  </section>
{/each}
