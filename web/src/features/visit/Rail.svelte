<script lang="ts">
  import { STEPS, type Step, type VisitState } from '../../domain/visit.svelte'

  /** The seven steps; any may be opened at any time, each says how far it is. */
  let { state: at, ongo }: { state: VisitState; ongo: (step: Step) => void } = $props()
  const MARKS: Record<string, string> = { done: '●', begun: '◐', open: '○' }
  let rail: HTMLElement

  $effect(() => {
    rail.children[STEPS.indexOf(at.step)]?.scrollIntoView({ inline: 'center', block: 'nearest' })
  })
</script>

<nav
  bind:this={rail}
  aria-label="Steps of the visit"
  class="sticky top-0 z-20 flex overflow-x-auto border-b border-base-300 bg-base-100 px-2"
>
  {#each at.view!.rail as step, index (step.step)}
    <button
      type="button"
      aria-current={step.step === at.step ? 'step' : undefined}
      class="min-h-14 min-w-24 flex-1 cursor-pointer border-b-4 px-2 py-1 text-sm whitespace-nowrap {step.step ===
      at.step
        ? 'border-accent font-bold'
        : 'border-transparent'}"
      onclick={() => ongo(step.step)}
    >
      <span class="block">
        <span aria-hidden="true" class={step.state === 'done' ? 'text-success' : 'text-neutral'}
          >{MARKS[step.state]}</span
        >
        {index + 1}
        {step.title}
      </span>
      <span class="block min-h-4 text-xs text-neutral">{step.says}</span>
    </button>
  {/each}
</nav>
