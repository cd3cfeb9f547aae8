<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { SYSTEMS, type System } from '../../domain/units'
  import Faults from '../../ui/Faults.svelte'

  /** The sites: their names and units, labels for all their switches, their record as a file. */
  type Site = Schemas['RoundsOut']['sites'][number]
  let { sites, mayWrite, onchanged }: { sites: Site[]; mayWrite: boolean; onchanged: () => void } =
    $props()
  let faults = $state.raw<Record<string, Fault[]>>({})
  let problem = $state<Problem | undefined>()
  const byName = $derived(sites.toSorted((a, b) => a.name.localeCompare(b.name)))
  const inUse = (site: Site) => site.systems.some((system) => !system.retired)
  async function retire(site: Site, retired: boolean) {
    const params = { path: { site_id: site.id } }
    ;({ problem } = await outcome(
      api.PUT('/api/sites/{site_id}/retired', { params, body: { retired } }),
    ))
    onchanged()
  }
  const count = (systems: number) => `${systems} ${systems === 1 ? 'system' : 'systems'}`

  async function change(site: Site, body: { name?: string; units?: System }) {
    const params = { path: { site_id: site.id } }
    const got = await outcome(api.PATCH('/api/sites/{site_id}', { params, body }))
    const [found, left] = parted(got.problem)
    faults = { ...faults, [site.id]: found }
    problem = left
    if (got.data) onchanged()
  }
</script>

<section aria-labelledby="sites" class="grid gap-2">
  <h2 id="sites" class="text-xl font-bold">Sites</h2>
  {#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
  <ul class="grid gap-2">
    {#each byName as site (site.id)}
      <li class="rounded-box border border-base-300 bg-base-100">
        <details>
          <summary class="flex min-h-12 cursor-pointer items-center gap-3 px-3">
            <span class="flex-1 font-bold">{site.name}</span>
            <span class="text-sm text-neutral">{count(site.systems.length)}</span>
          </summary>
          <div class="grid gap-2 p-3 sm:grid-cols-[1fr_10rem]">
            <label class="grid gap-1 text-sm">
              Name
              <input
                class="input input-lg w-full"
                maxlength="80"
                value={site.name}
                disabled={!mayWrite}
                onchange={(event) => change(site, { name: event.currentTarget.value })}
              />
              <Faults faults={faults[site.id] ?? []} path="name" />
            </label>
            <label class="grid content-start gap-1 text-sm">
              Units there
              <select
                class="select select-lg w-full"
                value={site.units}
                disabled={!mayWrite}
                onchange={(event) => change(site, { units: event.currentTarget.value as System })}
              >
                {#each SYSTEMS as system (system.id)}<option value={system.id}
                    >{system.title}</option
                  >{/each}
              </select>
            </label>
            <div class="flex flex-wrap gap-2 sm:col-span-2">
              {#if inUse(site)}
                <a
                  class="btn min-h-12"
                  href="/api/labels.pdf?site={site.id}"
                  target="_blank"
                  rel="noopener">Labels</a
                >
              {/if}
              <a class="btn min-h-12" href="/api/archive/sites/{site.id}.json?photos=true" download
                >Whole record</a
              >
              <a class="btn min-h-12" href="/api/tables/sites/{site.id}.zip" download
                >Tables (CSV)</a
              >
              {#if mayWrite && site.systems.length}
                <button type="button" class="btn min-h-12" onclick={() => retire(site, inUse(site))}
                  >{inUse(site) ? 'Retire the site' : 'Bring it back'}</button
                >
              {/if}
            </div>
          </div>
        </details>
      </li>
    {/each}
  </ul>
</section>
