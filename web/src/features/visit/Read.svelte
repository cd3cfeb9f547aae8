<script lang="ts">
  import Looked from './Looked.svelte'
  import Photos from './Photos.svelte'
  import Plates from './Plates.svelte'
  import ReadFields from './ReadFields.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** What can only be read dead and drained: the air, the plates, what is under the cover, what looks wrong. */
  let { state: at }: { state: VisitState } = $props()
  const fields = $derived(at.view!.read)
</script>

<div class="grid gap-3">
  <ReadFields state={at} fields={fields.filter((field) => field.kind === 'quantity')} />
</div>
<Plates system={at.visit!.system.id} />
<Photos state={at} />
<div class="grid gap-3">
  <ReadFields state={at} fields={fields.filter((field) => field.kind === 'words')} />
  <Looked state={at} fields={fields.filter((field) => field.kind === 'flag')} />
</div>
