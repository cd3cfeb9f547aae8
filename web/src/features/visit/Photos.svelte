<script lang="ts">
  import PhotoButton from '../../ui/PhotoButton.svelte'
  import { PHOTOS_OF, photoTitle, type PhotoOf } from '../../domain/photos'
  import type { VisitState } from '../../domain/visit.svelte'

  let { state: at }: { state: VisitState } = $props()
</script>

<div class="grid grid-cols-3 gap-2">
  {#each PHOTOS_OF as of (of)}
    <PhotoButton {of} disabled={!at.open} onphoto={(photo) => at.photo(of, photo)} />
  {/each}
</div>
{#if at.photos.length}
  <p role="status" class="text-sm">{at.photos.length} saved on this phone until there is signal.</p>
{/if}
{#if at.visit!.photos.length}
  <div class="flex flex-wrap gap-2">
    {#each at.visit!.photos as photo (photo.id)}
      <a href="/api/visits/{at.id}/photos/{photo.id}" target="_blank"
        ><img
          class="h-20 rounded-box"
          src="/api/visits/{at.id}/photos/{photo.id}"
          alt="Photo of the {photoTitle(photo.plate as PhotoOf)}"
        /></a
      >
    {/each}
  </div>
{/if}
