<script lang="ts">
  import { photoTitle, smaller, type PhotoOf } from '../domain/photos'

  /** Opens the camera, and hands on what it took, small enough to send. */
  let {
    of,
    disabled = false,
    onphoto,
  }: { of: PhotoOf; disabled?: boolean; onphoto: (photo: Blob) => void } = $props()

  async function take(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0]
    event.currentTarget.value = ''
    if (file) onphoto(await smaller(file))
  }
</script>

<label class="btn min-h-14 px-1 text-sm {disabled ? 'btn-disabled' : ''}">
  Photo, {photoTitle(of)}
  <input
    type="file"
    accept="image/jpeg,image/png"
    capture="environment"
    class="sr-only"
    {disabled}
    onchange={take}
  />
</label>
