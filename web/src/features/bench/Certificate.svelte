<script lang="ts">
  import { api, outcome } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import SharedLinks from '../../ui/SharedLinks.svelte'

  /** The certificate as a PDF; of a calibration that is signed, links to it. */
  let {
    calibration,
    closed,
    mayShare,
  }: { calibration: string; closed: boolean; mayShare: boolean } = $props()
  const path = $derived({ calibration_id: calibration })
  const at = (id: string) => ({ path: { ...path, certificate_link_id: id } })
  const read = () =>
    outcome(api.GET('/api/calibrations/{calibration_id}/links', { params: { path } }))
  const make = (id: string, days: number) =>
    outcome(
      api.PUT('/api/calibrations/{calibration_id}/links/{certificate_link_id}', {
        params: at(id),
        body: { days, units: preferences.units },
      }),
    )
  const revoke = (id: string) =>
    outcome(
      api.DELETE('/api/calibrations/{calibration_id}/links/{certificate_link_id}', {
        params: at(id),
      }),
    )
</script>

<a
  class="btn min-h-12"
  href="/api/calibrations/{calibration}/certificate.pdf?units={preferences.units}"
  target="_blank"
  rel="noopener">{closed ? 'Certificate' : 'Certificate as it stands'}</a
>
{#if closed}
  <SharedLinks {read} {make} {revoke} {mayShare} label="Make a link to it" />
{/if}
