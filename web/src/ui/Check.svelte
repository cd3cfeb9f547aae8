<script lang="ts">
  /** One thing that a person confirms by hand; shut until what comes before it is done. */
  let {
    does,
    caution = '',
    done,
    shut = '',
    disabled = false,
    onconfirm,
  }: {
    does: string
    caution?: string
    done: boolean
    shut?: string
    disabled?: boolean
    onconfirm: (done: boolean) => void
  } = $props()
</script>

<button
  type="button"
  role="checkbox"
  aria-checked={done}
  disabled={disabled || shut !== ''}
  class="grid min-h-16 w-full cursor-pointer grid-cols-[auto_1fr] items-center gap-3 rounded-box border-2 bg-base-100 px-4 py-3 text-left disabled:cursor-default {done
    ? 'border-success'
    : shut
      ? 'border-base-300 text-neutral'
      : 'border-base-content'}"
  onclick={() => onconfirm(!done)}
>
  <span
    class="grid size-8 place-items-center rounded-lg border-2 text-xl font-bold {done
      ? 'border-success bg-success text-base-100'
      : 'border-current'}"
    aria-hidden="true">{done ? '✓' : ''}</span
  >
  <span>
    <span class="block leading-snug">{does}</span>
    {#if shut}<span class="block text-sm">{shut}</span>
    {:else if caution && !done}<span class="block text-sm font-bold text-error">{caution}</span
      >{/if}
  </span>
</button>
