<script lang="ts">
  import TopBar from '../../ui/TopBar.svelte'
  import Segmented from '../../ui/Segmented.svelte'
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import { percent } from '../../domain/units'
  import BenchStandIns from './BenchStandIns.svelte'
  import HandTurn from './HandTurn.svelte'

  /** Hands at the made-up plants that stand in for the demo's systems: to try gauges on the wire without a device. */
  type StandIn = Schemas['StandInOut']
  let plants = $state.raw<StandIn[]>([])
  let loaded = $state(false)
  let problem = $state.raw<Problem | undefined>()
  $effect(() => {
    void outcome(api.GET('/api/stand-ins')).then((got) => {
      plants = got.data ?? []
      problem = got.problem
      loaded = true
    })
  })
  const SWITCH = [
    { id: 'on', title: 'On' },
    { id: 'off', title: 'Off' },
  ]
  const FLOWS = [0, 0.1, 0.3, 0.6, 1]
  const NUTS = [
    ['first', 'First nut'],
    ['second', 'Second nut'],
  ] as const

  async function move(plant: StandIn, moved: Partial<StandIn['hands']>) {
    const params = { path: { system_id: plant.system } }
    const body = { hands: { ...plant.hands, ...moved } }
    const got = await outcome(api.PUT('/api/stand-ins/{system_id}', { params, body }))
    problem = got.problem
    if (got.data) plants = plants.map((each) => (each.unit === plant.unit ? got.data : each))
  }
</script>

<svelte:head><title>Stand-ins · Zero Dip</title></svelte:head>
<TopBar />
<main class="mx-auto grid max-w-5xl gap-4 px-4 py-4">
  <h1 class="text-2xl font-bold">Stand-ins</h1>
  <p>
    Made-up plants with a gauge on the wire, to try the big gauge without a device. What you do here
    shows on that gauge at once.
  </p>
  {#if problem}<p role="alert" class="text-error">
      {problem.title}. {problem.detail}
      {problem.faults.map((fault) => fault.message).join(' ')}
    </p>{/if}
  <ul class="grid gap-3 md:grid-cols-2">
    {#each plants as plant (plant.unit)}
      <li
        class="grid gap-3 rounded-box border border-base-300 bg-base-100 px-3 py-3"
        data-testid="stand-in"
      >
        <h2 class="font-bold">
          {plant.name} <span class="font-normal text-neutral">{plant.site}, unit {plant.unit}</span>
        </h2>
        <div class="flex flex-wrap gap-3">
          <span class="grid gap-1 text-sm"
            >Power <Segmented
              label="Power of {plant.name}"
              options={SWITCH}
              value={plant.hands.power}
              onchange={(power) => move(plant, { power })}
            /></span
          >
          <span class="grid gap-1 text-sm"
            >Gauge’s cable <Segmented
              label="Cable of {plant.name}"
              options={SWITCH}
              value={plant.hands.line}
              onchange={(line) => move(plant, { line })}
            /></span
          >
        </div>
        {#each [['tap', 'Taps open'], ['drain', 'Drain open']] as const as [name, title] (name)}
          <div class="grid gap-1" role="group" aria-label="{title}, {plant.name}">
            <span class="text-sm">{title}</span>
            <div class="flex gap-1">
              {#each FLOWS as share (share)}
                <button
                  type="button"
                  class="btn min-h-12 flex-1 px-1 {plant.hands[name] === share
                    ? 'btn-primary'
                    : ''}"
                  aria-pressed={plant.hands[name] === share}
                  onclick={() => move(plant, { [name]: share })}
                  >{share ? percent(share) : 'Shut'}</button
                >
              {/each}
            </div>
          </div>
        {/each}
        {#each NUTS as [nut, title] (nut)}
          <HandTurn
            {title}
            of={plant.name}
            turns={Number(plant.hands[nut])}
            by={0.125}
            part="an eighth"
            onturn={(turns) => move(plant, { [nut]: turns })}
          />
        {/each}
      </li>
    {/each}
  </ul>
  <BenchStandIns />
  {#if loaded && !plants.length && !problem}
    <p class="text-neutral">There is none here. The demo has one for each of its plants.</p>
  {/if}
</main>
