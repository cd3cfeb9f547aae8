<script lang="ts">
  import type { VisitState } from '../../domain/visit.svelte'

  let { state: at }: { state: VisitState } = $props()
  const PLATES: [string, string][] = [
    ['tank', 'tank plate'],
    ['switch', 'switch'],
    ['pump', 'pump plate'],
  ]
  const MOST = 1280

  /** Small enough for a cellar's signal: at most 1280 pixels wide or high, as JPEG. */
  async function smaller(file: File): Promise<Blob> {
    const picture = await createImageBitmap(file)
    const scale = Math.min(1, MOST / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(picture.width * scale)
    canvas.height = Math.round(picture.height * scale)
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    return new Promise((done) => canvas.toBlob((blob) => done(blob!), 'image/jpeg', 0.8))
  }
  async function add(plate: string, event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0]
    event.currentTarget.value = ''
    if (file) await at.photo(plate, await smaller(file))
  }
</script>

<div class="grid grid-cols-3 gap-2">
  {#each PLATES as [plate, title] (plate)}
    <label class="btn min-h-14 px-1 text-sm {at.open ? '' : 'btn-disabled'}">
      Photo, {title}
      <input
        type="file"
        accept="image/jpeg,image/png"
        capture="environment"
        class="sr-only"
        disabled={!at.open}
        onchange={(event) => add(plate, event)}
      />
    </label>
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
          alt="Photo of the {PLATES.find(([id]) => id === photo.plate)?.[1] ?? photo.plate}"
        /></a
      >
    {/each}
  </div>
{/if}
