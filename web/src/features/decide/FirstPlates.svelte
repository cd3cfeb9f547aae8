<script lang="ts">
  import usual from '../../api/generated/usual.gen'
  import FieldRow from '../../ui/FieldRow.svelte'
  import { fieldOf } from '../../domain/fields'
  import type { BoardState } from '../../domain/board.svelte'
  import { kindOf } from '../../domain/plates'
  import { firstPlates } from '../../domain/plates/first'
  import { preferences } from '../../domain/preferences.svelte'
  import { photoOfSystem } from '../../domain/photos'
  import { bandText } from '../../domain/units'
  import PhotoButton from '../../ui/PhotoButton.svelte'
  import PlateDrawing from './PlateDrawing.svelte'

  /** The readings that matter most of a new system, one plate a step; what cannot be read keeps its usual value. */
  let {
    board,
    onpropose,
    onclose,
  }: { board: BoardState; onpropose: () => void; onclose: () => void } = $props()
  let dialog: HTMLDialogElement
  let at = $state(0)
  $effect(() => dialog.showModal())
  const plates = $derived(firstPlates(board.file!))
  const plate = $derived(plates[at]!)
  const last = $derived(at === plates.length - 1)
  type Band = readonly number[]
  const bands = $derived<readonly Band[]>(usual[kindOf(board.file) as keyof typeof usual] ?? [])
  const blank = (path: string) => board.usualUnder(path) > 0
  const read = $derived(plate.rows.some((row) => !blank(row.path) && board.value(row.path) != null))
  const faults = $derived(plate.rows.flatMap((row) => board.faultsAt(row.path)))
  const IN = 'settings.cut_in_gauge_pa'
  const OUT = 'settings.cut_out_gauge_pa'
  const chosen = ([low, high]: Band) =>
    !blank(IN) && board.value(IN) === low && board.value(OUT) === high

  function take([low, high]: Band) {
    board.put(IN, low)
    board.put(OUT, high)
  }
  function type(path: string, typed: string, dimension: Parameters<typeof board.type>[2]) {
    board.type(path, typed, dimension)
    // A valve whose setting was read is there.
    if (path === 'system.relief.setting_gauge_pa') board.put('system.relief.present', true)
  }
  let photos = $state('')
  async function photo(data: Blob) {
    const problem = await photoOfSystem(board.id, plate.id, data)
    photos = problem ? `${problem.title}. ${problem.detail}` : 'Photo saved with the visit.'
  }
  function next(event: SubmitEvent) {
    event.preventDefault()
    photos = ''
    if (!last) return void at++
    dialog.close()
    onpropose()
  }
  const band = ([low, high]: Band) => bandText(low!, high!, preferences.units)
</script>

<dialog
  bind:this={dialog}
  class="modal max-sm:modal-bottom"
  aria-labelledby="first-title"
  {onclose}
>
  <div class="modal-box max-h-[94dvh]">
    <form class="grid gap-3" onsubmit={next}>
      <p class="text-sm text-neutral">Plate {at + 1} of {plates.length}</p>
      <PlateDrawing id={plate.id} />
      <div class="rounded-box border-2 border-accent bg-base-200 px-4 py-3">
        <h2 id="first-title" class="text-lg font-bold">{plate.title}</h2>
        <p class="mb-3 text-sm">{plate.hint}</p>
        {#if plate.id === 'switch' && bands.length}
          <div class="mb-3 flex flex-wrap gap-2" role="group" aria-label="Usual settings">
            {#each bands as each (each[0])}
              <button
                type="button"
                class="btn min-h-12 flex-1 {chosen(each) ? 'btn-primary' : ''}"
                aria-pressed={chosen(each)}
                onclick={() => take(each)}>{band(each)}</button
              >
            {/each}
          </div>
        {/if}
        <div class="grid gap-3">
          {#each plate.rows as row (row.path)}
            {@const field = fieldOf(row.owner, row.name)}
            <FieldRow
              {field}
              path={row.path}
              value={blank(row.path) ? null : board.value(row.path)}
              entered={blank(row.path) ? undefined : board.entered(row.path)}
              faults={blank(row.path) ? [] : board.faultsAt(row.path)}
              ontype={(typed) => type(row.path, typed, field.dimension)}
              onput={(value) => board.put(row.path, value)}
            />
          {/each}
        </div>
      </div>
      <div class="flex items-center gap-3">
        <PhotoButton of={plate.id} onphoto={photo} />
        <p role="status" class="text-sm">{photos}</p>
      </div>
      <button class="btn min-h-14 btn-lg btn-primary" disabled={faults.length > 0}
        >{read ? '' : 'Not readable: '}{last
          ? read
            ? 'Propose settings'
            : 'propose settings'
          : read
            ? 'Next plate'
            : 'next plate'}</button
      >
    </form>
    <form method="dialog"><button class="btn mt-2 min-h-12 w-full btn-ghost">Later</button></form>
  </div>
</dialog>
