<script lang="ts">
  /** The thing on which a plate is found, so that one knows where to look. */
  let { id }: { id: 'switch' | 'tank' | 'pump' } = $props()
</script>

<svg
  viewBox="0 0 220 96"
  class="mx-auto h-24 text-base-content"
  fill="none"
  stroke="currentColor"
  stroke-width="2.5"
  aria-hidden="true"
>
  {#if id === 'switch'}
    <rect x="52" y="8" width="116" height="66" rx="10" />
    <path d="M110 74v16M98 90h24" />
    <g class="text-accent" stroke="currentColor">
      <path d="M76 60v-8l8-5-8-5 8-5-8-5v-8M136 60v-6l6-4-6-4 6-4-6-4v-6" />
      <circle cx="78" cy="20" r="6" /><circle cx="138" cy="26" r="5" />
    </g>
    <path d="M150 20h10M150 32h10M150 44h10M150 56h10" />
  {:else if id === 'tank'}
    <path d="M66 24q0-16 44-16t44 16v46q0 16-44 16t-44-16z" />
    <path
      d="M66 52q44 14 88 0"
      stroke-dasharray="5 4"
      class="text-secondary"
      stroke="currentColor"
    />
    <rect x="86" y="24" width="48" height="20" rx="3" class="text-accent" stroke="currentColor" />
    <path d="M154 76h26v-14M172 56h16l-4 6h-8z" />
  {:else}
    <rect x="40" y="26" width="88" height="48" rx="8" />
    <circle cx="152" cy="50" r="24" /><path d="M152 26V10h22M46 74v12M122 74v12" />
    <rect x="56" y="38" width="56" height="24" rx="3" class="text-accent" stroke="currentColor" />
  {/if}
</svg>
