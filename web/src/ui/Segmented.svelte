<script lang="ts" generics="T extends string">
  let {
    label,
    options,
    value,
    onchange,
  }: {
    label: string
    options: readonly { id: T; title: string }[]
    value: T
    onchange: (value: T) => void
  } = $props()
</script>

<div
  role="group"
  aria-label={label}
  class="flex max-w-full overflow-x-auto rounded-full border border-base-300 bg-base-100 text-sm"
>
  {#each options as option (option.id)}
    <button
      type="button"
      aria-pressed={option.id === value}
      class="min-h-12 cursor-pointer rounded-full px-3 whitespace-nowrap sm:min-h-9 {option.id ===
      value
        ? 'bg-primary text-primary-content'
        : ''}"
      onclick={() => onchange(option.id)}>{option.title}</button
    >
  {/each}
</div>
