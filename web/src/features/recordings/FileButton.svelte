<script lang="ts">
  /** Takes a file; while one is sent, how much of it is there. */
  let {
    word,
    share,
    onfile,
  }: { word: string; share: number | undefined; onfile: (file: File) => void } = $props()

  function take(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0]
    event.currentTarget.value = '' // the same one may be taken again
    if (file) onfile(file)
  }
</script>

<label class="btn min-h-12 {share === undefined ? '' : 'btn-disabled'}">
  {share === undefined ? word : `Sending ${Math.round(share * 100)} %`}
  <input type="file" class="sr-only" disabled={share !== undefined} onchange={take} />
</label>
