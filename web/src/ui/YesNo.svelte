<script lang="ts">
  /** A question with two big answers. */
  let {
    title,
    note = '',
    value,
    disabled,
    onset,
  }: {
    title: string
    note?: string
    value: unknown
    disabled: boolean
    onset: (flag: boolean) => void
  } = $props()
  const ANSWERS: [string, boolean][] = [
    ['Yes', true],
    ['No', false],
  ]
</script>

<div role="group" aria-label={title} class="flex items-center gap-2">
  <span class="flex-1 leading-tight"
    >{title}
    {#if note}<span class="block text-sm text-neutral">{note}</span>{/if}</span
  >
  {#each ANSWERS as [word, flag] (word)}
    <button
      type="button"
      class="btn min-h-12 w-16 {value === flag ? 'btn-primary' : ''}"
      aria-pressed={value === flag}
      {disabled}
      onclick={() => onset(flag)}>{word}</button
    >
  {/each}
</div>
