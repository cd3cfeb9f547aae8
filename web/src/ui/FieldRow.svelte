<script lang="ts">
  import type { Fault } from '../api/client'
  import type { Field } from '../domain/fields'
  import type { Entered } from '../domain/quantity'
  import QuantityInput from './QuantityInput.svelte'

  let {
    field,
    path,
    value,
    entered,
    faults,
    options = {},
    title = field.title,
    usual = false,
    ontype,
    onput,
    onconfirm,
  }: {
    field: Field
    path: string
    value: unknown
    /** As typed, where that is known. */
    entered?: Entered | undefined
    faults: Fault[]
    options?: Record<string, string>
    title?: string
    /** Whether a usual value stands here that nobody read. */
    usual?: boolean
    ontype: (text: string) => void
    onput: (value: unknown) => void
    onconfirm?: () => void
  } = $props()

  const id = $derived('field-' + path.replaceAll('.', '-'))
  const flags: [string, boolean | null][] = [
    ['Yes', true],
    ['No', false],
    ['Not seen', null],
  ]
</script>

<div class="grid gap-1">
  {#if field.kind === 'flag'}
    <span id="{id}-label">{title}</span>
    <div {id} tabindex="-1" role="group" aria-labelledby="{id}-label" class="flex gap-2">
      {#each flags as [word, flag] (word)}
        <button
          type="button"
          class="btn min-h-12 flex-1 {value === flag ? 'btn-primary' : ''}"
          aria-pressed={value === flag}
          onclick={() => onput(flag)}>{word}</button
        >
      {/each}
    </div>
  {:else if field.kind === 'choice'}
    <label for={id}>{title}</label>
    <select
      {id}
      class="select select-lg w-full"
      {value}
      onchange={(event) => onput(event.currentTarget.value)}
    >
      {#each field.options as option (option)}<option value={option}
          >{options[option] ?? option}</option
        >{/each}
    </select>
  {:else if field.kind === 'words'}
    <label for={id}>{title}</label>
    <input
      {id}
      class="input input-lg w-full"
      {value}
      oninput={(event) => onput(event.currentTarget.value)}
    />
  {:else}
    <label for={id}>{title}</label>
    <span class="input input-lg w-full {faults.length ? 'input-error' : ''}">
      <QuantityInput
        {id}
        class="figure"
        live
        {value}
        {entered}
        dimension={field.dimension}
        onset={({ text }) => ontype(text)}
        aria-invalid={faults.length > 0}
        aria-describedby={faults.length ? `${id}-fault` : undefined}
        placeholder={field.optional ? 'missing' : ''}
      />
    </span>
  {/if}
  {#if usual}
    <p class="flex flex-wrap items-center justify-between gap-x-3 text-sm" data-testid="usual">
      <span class="text-accent">A usual value only.</span>
      <button type="button" class="btn min-h-12" aria-label="It is so: {title}" onclick={onconfirm}
        >It is so</button
      >
    </p>
  {/if}
  {#if faults.length}
    <p id="{id}-fault" class="text-sm text-error">
      {faults.map((fault) => fault.message).join(' ')}
    </p>
  {/if}
</div>
