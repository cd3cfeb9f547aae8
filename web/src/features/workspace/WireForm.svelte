<script module lang="ts">
  export type Wire = Record<string, unknown>
</script>

<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { fieldOf } from '../../domain/fields'
  import { preferences } from '../../domain/preferences.svelte'
  import { parse, text } from '../../domain/units'
  import Faults from '../../ui/Faults.svelte'

  /** Where a gauge on the wire is read, and what its figures mean; tested before it is saved. */
  let {
    workspace,
    wire = $bindable(),
    faults,
  }: { workspace: string; wire: Wire; faults: Fault[] } = $props()
  const ROWS = [
    ['host', 'port', 'unit'],
    ['table', 'register', 'number'],
    ['order', 'rate_hz', 'pressure_unit'],
    ['raw_low', 'raw_high'],
    ['at_low', 'at_high'],
    ['contact', 'contact_register'],
  ]
  const WORDS: Record<string, string> = {
    holding: 'holding (4…)',
    input: 'input (3…)',
    big: 'high word first',
    little: 'low word first',
    uint16: '16 bit',
    int16: '16 bit, with sign',
    uint32: '32 bit',
    int32: '32 bit, with sign',
    float32: '32 bit, floating',
    none: 'none',
    discrete: 'discrete input (1…)',
    coil: 'coil (0…)',
  }
  let looked = $state.raw<Schemas['LookOut'] | undefined>()
  let wrong = $state.raw<Fault[]>([])
  let problem = $state.raw<Problem | undefined>()
  let busy = $state(false)
  const all = $derived([...faults, ...wrong])

  function type(name: string, kind: string, typed: string) {
    looked = undefined
    // What is no number is for the server to name.
    wire = { ...wire, [name]: kind === 'quantity' ? (parse(typed) ?? typed) : typed }
  }
  async function look() {
    busy = true
    const params = { path: { workspace_id: workspace } }
    const got = await outcome(
      api.POST('/api/workspaces/{workspace_id}/wires/look', { params, body: { wire } }),
    )
    ;[wrong, problem] = parted(got.problem)
    looked = got.data
    busy = false
  }
</script>

<fieldset class="grid gap-3 sm:col-span-3 sm:grid-cols-3">
  <legend class="mb-1 font-bold">On the wire, by Modbus TCP</legend>
  {#each ROWS as row (row[0])}
    {#each row as name (name)}
      {@const field = fieldOf('WireSpec', name)}
      <label class="grid content-start gap-1 text-sm">
        {field.title}
        {#if field.kind === 'choice'}
          <select
            class="select select-lg w-full"
            value={wire[name]}
            onchange={(event) => type(name, field.kind, event.currentTarget.value)}
          >
            {#each field.options as each (each)}<option value={each}>{WORDS[each] ?? each}</option
              >{/each}
          </select>
        {:else}
          <input
            class="input input-lg w-full {field.kind === 'quantity' ? 'figure' : ''}"
            inputmode={field.kind === 'quantity' ? 'decimal' : 'text'}
            autocapitalize="off"
            spellcheck="false"
            value={wire[name] ?? ''}
            oninput={(event) => type(name, field.kind, event.currentTarget.value)}
          />
        {/if}
        <Faults faults={all} path="wire.{name}" />
      </label>
    {/each}
    {#if row.length === 2}
      <p class="text-sm text-neutral max-sm:hidden">
        {row[0] === 'raw_low'
          ? 'What the device sends at both ends of its scale.'
          : 'The gauge pressure that these stand for, in the unit of its sheet.'}
      </p>
    {/if}
  {/each}
  <div class="flex flex-wrap items-center gap-3 sm:col-span-3">
    <button type="button" class="btn min-h-12" disabled={busy} onclick={look}
      >{busy ? 'Testing…' : 'Test it'}</button
    >
    <p role="status" class="min-w-0 flex-1">
      {#if problem}{problem.title}. {problem.detail}
      {:else if looked?.problem}<span class="font-bold text-warning">▲ {looked.says}</span>
        {#if looked.gauge_pa !== null}It reads {text(
            looked.gauge_pa,
            'pressure',
            preferences.units,
          )}.{/if}
      {:else if looked}<span class="font-bold text-success"
          >● It reads {text(looked.gauge_pa!, 'pressure', preferences.units)}.</span
        > Hold it beside the gauge on the pipe.{/if}
    </p>
  </div>
</fieldset>
