<script lang="ts">
  import { api, outcome, type Schemas } from '../../api/client'
  import Due from './Due.svelte'

  /** The set-point switches of the rounds, the soonest due first; nothing where there are none. */
  let { search }: { search: string } = $props()
  let all = $state.raw<Schemas['DeviceOut'][]>([])
  $effect(() => {
    void outcome(api.GET('/api/devices')).then(({ data }) => (all = data ?? []))
  })
  const wanted = $derived(search.trim().toLowerCase())
  const found = $derived(
    all.filter((each) =>
      [each.device.name, each.device.tag_number, each.site_name].some((text) =>
        String(text ?? '')
          .toLowerCase()
          .includes(wanted),
      ),
    ),
  )
</script>

{#if found.length}
  <section class="mb-6" aria-labelledby="switches">
    <h2 id="switches" class="mb-2 font-bold">Set-point switches</h2>
    <ul class="grid gap-2">
      {#each found as device (device.id)}<Due {device} />{/each}
    </ul>
  </section>
{/if}
