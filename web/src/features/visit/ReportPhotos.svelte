<script lang="ts">
  import { photoTitle, type PhotoOf } from '../../domain/photos'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Which photos of the visit the customer sees in the report. */
  let { state: at }: { state: VisitState } = $props()
  interface Choice {
    photo: string
    shown: boolean
  }
  const said = $derived(at.series('photo').map((each) => each.value as Choice))
  const shown = (photo: string) => said.findLast((each) => each.photo === photo)?.shown === true
</script>

{#if at.visit!.photos.length}
  <section aria-labelledby="report-photos" class="grid gap-2">
    <h2 id="report-photos" class="font-bold">Photos in the report</h2>
    <ul class="grid grid-cols-2 gap-2 sm:grid-cols-3">
      {#each at.visit!.photos as photo, nth (photo.id)}
        {@const title = photoTitle(photo.plate as PhotoOf)}
        <li>
          <label
            class="grid min-h-12 cursor-pointer gap-2 rounded-box border bg-base-100 p-2 text-sm {shown(
              photo.id,
            )
              ? 'border-accent'
              : 'border-base-300'}"
          >
            <img
              class="aspect-[4/3] w-full rounded-box object-cover"
              src="/api/visits/{at.id}/photos/{photo.id}"
              alt=""
            />
            <span class="flex min-h-10 items-center gap-2">
              <input
                type="checkbox"
                class="checkbox"
                checked={shown(photo.id)}
                disabled={!at.open}
                onchange={(event) =>
                  at.add('photo', { photo: photo.id, shown: event.currentTarget.checked })}
              />
              Photo {nth + 1}, {title}
            </span>
          </label>
        </li>
      {/each}
    </ul>
  </section>
{/if}
