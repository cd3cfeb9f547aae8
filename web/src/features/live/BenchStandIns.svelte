<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import Segmented from '../../ui/Segmented.svelte'
  import HandTurn from './HandTurn.svelte'

  /** Hands at the made-up benches that stand in for the demo's set-point switches. */
  type Bench = Schemas['BenchStandInOut']
  let benches = $state.raw<Bench[]>([])
  let problem = $state.raw<Problem | undefined>()
  $effect(() => {
    void outcome(api.GET('/api/bench-stand-ins')).then((got) => {
      benches = got.data ?? []
      problem = got.problem
    })
  })
  const PUMP = [
    { id: 'down', title: 'Down' },
    { id: 'down_slowly', title: 'Down slowly' },
    { id: 'hold', title: 'Hold' },
    { id: 'up_slowly', title: 'Up slowly' },
    { id: 'up', title: 'Up' },
  ]
  const LEADS = [
    { id: 'lower', title: 'Lower' },
    { id: 'upper', title: 'Upper' },
  ]
  const LINE = [
    { id: 'on', title: 'On' },
    { id: 'off', title: 'Off' },
  ]
  const screwsOf = (bench: Bench): ('upper' | 'lower')[] =>
    bench.dual ? ['upper', 'lower'] : ['lower']

  async function move(bench: Bench, moved: Partial<Bench['hands']>) {
    const params = { path: { device_id: bench.device } }
    const body = { hands: { ...bench.hands, ...moved } }
    const got = await outcome(api.PUT('/api/bench-stand-ins/{device_id}', { params, body }))
    problem = got.problem
    if (got.data) benches = benches.map((each) => (each.unit === bench.unit ? got.data : each))
  }
</script>

{#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
{#if benches.length}
  <h2 class="text-xl font-bold">Benches</h2>
  <p>Made-up switches on a hand pump, their reference and their contact on the wire.</p>
{/if}
<ul class="grid gap-3 md:grid-cols-2">
  {#each benches as bench (bench.unit)}
    <li
      class="grid content-start gap-3 rounded-box border border-base-300 bg-base-100 px-3 py-3"
      data-testid="bench-stand-in"
    >
      <h3 class="font-bold">
        {bench.name} <span class="font-normal text-neutral">{bench.site}, unit {bench.unit}</span>
      </h3>
      <span class="grid gap-1 text-sm"
        >Pump <Segmented
          label="Pump of {bench.name}"
          options={PUMP}
          value={bench.hands.pump}
          onchange={(pump) => move(bench, { pump })}
        /></span
      >
      <div class="flex flex-wrap gap-3">
        {#if bench.dual}
          <span class="grid gap-1 text-sm"
            >Lead on the contact of <Segmented
              label="Lead at {bench.name}"
              options={LEADS}
              value={bench.hands.lead}
              onchange={(lead) => move(bench, { lead })}
            /></span
          >
        {/if}
        <span class="grid gap-1 text-sm"
          >Gauge’s cable <Segmented
            label="Cable of {bench.name}"
            options={LINE}
            value={bench.hands.line}
            onchange={(line) => move(bench, { line })}
          /></span
        >
      </div>
      {#each screwsOf(bench) as screw (screw)}
        <HandTurn
          title={bench.dual ? `${screw === 'upper' ? 'Upper' : 'Lower'} screw` : 'Screw'}
          of={bench.name}
          turns={Number(bench.hands[screw])}
          by={0.0625}
          part="a sixteenth"
          onturn={(turns) => move(bench, { [screw]: turns })}
        />
      {/each}
    </li>
  {/each}
</ul>
