<script lang="ts">
  import type { Fault } from '../../api/client'
  import { fieldOf, type Owner } from '../../domain/fields'
  import { SCALES, type Told } from '../../domain/units'
  import Faults from '../../ui/Faults.svelte'
  import QuantityInput from '../../ui/QuantityInput.svelte'

  /** Fields of one of the core's parts, by its table: what each is called, and how it is entered. */
  let {
    owner,
    names,
    values = $bindable(),
    path,
    faults,
    told,
    words = {},
  }: {
    owner: Owner
    names: string[]
    values: Record<string, unknown>
    path: string
    faults: Fault[]
    /** What pressures are told in. */
    told: Told
    /** What the options of a choice are called. */
    words?: Record<string, string>
  } = $props()
  const set = (name: string, value: unknown) => (values = { ...values, [name]: value })
</script>

{#each names as name (name)}
  {@const field = fieldOf(owner, name)}
  <label class="grid content-start gap-1 text-sm">
    {field.title}
    {#if field.kind === 'choice'}
      <select
        class="select select-lg w-full"
        value={values[name] ?? ''}
        onchange={(event) => set(name, event.currentTarget.value || null)}
      >
        {#if field.optional}<option value="">{words[''] ?? '–'}</option>{/if}
        {#each field.options as each (each)}<option value={each}
            >{words[each] ?? SCALES[each] ?? each}</option
          >{/each}
      </select>
    {:else if field.kind === 'flag'}
      <select
        class="select select-lg w-full"
        value={values[name] == null ? '' : String(values[name])}
        onchange={(event) =>
          set(name, event.currentTarget.value === '' ? null : event.currentTarget.value === 'true')}
      >
        <option value="">not looked at</option><option value="true">yes</option>
        <option value="false">no</option>
      </select>
    {:else if field.kind === 'quantity'}
      <span class="input input-lg w-full">
        <QuantityInput
          class="figure"
          live
          value={values[name]}
          dimension={field.dimension}
          {told}
          onset={({ value }) => set(name, value)}
        />
      </span>
    {:else}
      <input
        class="input input-lg w-full"
        type={name === 'due' ? 'date' : 'text'}
        value={values[name] ?? ''}
        oninput={(event) => set(name, event.currentTarget.value)}
      />
    {/if}
    <Faults {faults} path="{path}.{name}" />
  </label>
{/each}
