<script lang="ts">
  import type { Snippet } from 'svelte'

  /** Draws what it holds a few moments after what stands before it: a slow phone draws a full page piece by piece, from the top,
   * and answers a finger in between. */
  let { at, children }: { at: number; children: Snippet } = $props()
  let here = $state(false)

  $effect(() => {
    let left = at
    let frame = requestAnimationFrame(function next() {
      if (left-- > 1) frame = requestAnimationFrame(next)
      else here = true
    })
    return () => cancelAnimationFrame(frame)
  })
</script>

{#if here}{@render children()}{/if}
