<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { dayOn } from '../../domain/dates'

  /** A switch in a list: its name and place, and when it is due; a shape beside the colour. */
  let { device }: { device: Schemas['DeviceOut'] } = $props()
  const WORDS = {
    never: ['▲', 'never calibrated', 'text-warning'],
    overdue: ['■', 'overdue since', 'text-error'],
    soon: ['▲', 'due', 'text-warning'],
    good: ['●', 'due', 'text-success'],
  } as const
  const OUT = ['■', 'left out of tolerance', 'text-error'] as const
  const [shape, word, colour] = $derived(device.due_by === 'failed' ? OUT : WORDS[device.state])
</script>

<li>
  <a
    href="/switches/{device.id}"
    class="flex min-h-14 flex-wrap items-center gap-x-4 rounded-box border border-base-300 bg-base-100 px-4 py-2"
  >
    <span class="min-w-48 flex-1">
      <span class="font-bold">{device.device.name}</span>
      {#if device.device.tag_number}<span class="figure ml-1 text-sm"
          >{device.device.tag_number}</span
        >{/if}
      <span class="block text-sm text-neutral"
        >{[device.site_name, device.device.location].filter(Boolean).join(', ')}</span
      >
    </span>
    <span class="text-sm"
      ><span class={colour} aria-hidden="true">{shape}</span>
      {word}
      {device.due_on ? dayOn(device.due_on) : ''}{device.due_by === 'drift'
        ? ', by its drift'
        : ''}</span
    >
  </a>
</li>
