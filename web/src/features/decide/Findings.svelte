<script lang="ts">
  import type { Schemas } from '../../api/client'
  import VerdictMark, { VERDICTS } from '../../ui/VerdictMark.svelte'

  let {
    findings,
    onreading,
  }: { findings: Schemas['WordedFinding'][]; onreading: (path: string) => void } = $props()

  // What asks for a person is open to read; what is kept or does not apply is one press away.
  const pressing = $derived(
    findings.filter((finding) => ['stop', 'caution'].includes(finding.verdict)),
  )
  const unread = $derived(findings.filter((finding) => finding.verdict === 'cannot_tell'))
  const kept = $derived(findings.filter((finding) => finding.verdict === 'pass'))
  const apart = $derived(findings.filter((finding) => finding.verdict === 'not_applicable'))
  /** What somebody opened or folded stays so, whatever is judged anew. */
  const opened: Record<string, boolean> = $state({})
</script>

{#snippet row(finding: Schemas['WordedFinding'])}
  <li class="border-t border-base-300" data-rule={finding.rule} data-verdict={finding.verdict}>
    <details>
      <summary
        class="grid min-h-12 cursor-pointer list-none grid-cols-[auto_1fr] items-start gap-x-3 py-2.5"
      >
        <span class="pt-0.5"><VerdictMark verdict={finding.verdict} /></span>
        <span>
          <span class="flex flex-wrap justify-between gap-x-3">
            <span class="leading-snug">{finding.title}</span>
            <span class="figure text-sm {VERDICTS[finding.verdict]?.colour}">{finding.figure}</span>
          </span>
          {#if finding.advice}<span class="mt-0.5 block text-sm text-neutral">{finding.advice}</span
            >{/if}
          {#if finding.remedy}<span class="mt-1 block font-bold leading-snug" data-remedy
              >{finding.remedy}</span
            >{/if}
        </span>
      </summary>
      <div class="pb-3 pl-7 text-sm">
        {#if finding.formula}<p>{finding.formula}</p>{/if}
        <p class="mt-1 text-neutral">{finding.source}</p>
        {#each finding.missing as reading (reading.path)}
          <button
            type="button"
            class="btn mt-2 mr-2 btn-sm max-sm:min-h-12"
            onclick={() => onreading(reading.path)}>Enter it now</button
          >
        {/each}
      </div>
    </details>
  </li>
{/snippet}

{#snippet group(title: string, rows: Schemas['WordedFinding'][], open: boolean)}
  {#if rows.length}
    <details
      class="border-t border-base-300"
      open={opened[title] ?? open}
      ontoggle={(event) => (opened[title] = event.currentTarget.open)}
    >
      <summary class="flex min-h-12 cursor-pointer items-center gap-2 text-sm font-bold">
        <VerdictMark verdict={rows[0]!.verdict} size={12} />
        {rows.length}
        {title}
      </summary>
      <ul>
        {#each rows as finding (finding.rule)}{@render row(finding)}{/each}
      </ul>
    </details>
  {/if}
{/snippet}

<ul>
  {#each pressing as finding (finding.rule)}{@render row(finding)}{/each}
</ul>
{@render group('OK', kept, pressing.length === 0)}
{@render group('missing', unread, false)}
{@render group('do not apply', apart, false)}
