<script lang="ts">
  import type { Outcome, Problem, Schemas } from '../api/client'
  import { day } from '../domain/dates'
  import { uuid } from '../domain/uuid'

  /** Links by which anyone reads a document until they end or are taken back. */
  type Link = Schemas['LinkOut']
  let {
    read,
    make,
    revoke,
    mayShare,
    label,
  }: {
    read: () => Promise<Outcome<Link[]>>
    make: (id: string, days: number) => Promise<Outcome<Link>>
    revoke: (id: string) => Promise<Outcome<Link>>
    mayShare: boolean
    label: string
  } = $props()
  let links = $state.raw<Link[]>([])
  let problem = $state.raw<Problem | undefined>()
  let days = $state(30)
  let copied = $state('')
  const SPANS = [7, 30, 90, 365]
  const STATE = { alive: 'Good', expired: 'Expired', revoked: 'No longer shared' } as const

  async function load() {
    const got = await read()
    if (got.data) links = got.data
  }
  $effect(() => void load())
  async function after(done: Promise<Outcome<Link>>) {
    ;({ problem } = await done)
    await load()
  }
  async function copy(link: Link) {
    await navigator.clipboard?.writeText(link.address)
    copied = link.id
  }
</script>

{#if mayShare}
  <div class="flex flex-wrap items-end gap-2">
    <label class="grid flex-1 gap-1 text-sm">
      Good for
      <select class="select select-lg w-full" bind:value={days}>
        {#each SPANS as span (span)}<option value={span}>{span} days</option>{/each}
      </select>
    </label>
    <button type="button" class="btn min-h-12 flex-1" onclick={() => after(make(uuid(), days))}
      >{label}</button
    >
  </div>
{/if}
{#if problem}<p role="alert" class="text-sm text-error">{problem.title}. {problem.detail}</p>{/if}
{#if links.length}
  <ul class="grid gap-2" data-testid="links">
    {#each links as link (link.id)}
      <li class="grid gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-2">
        <span class="text-sm">
          <strong>{STATE[link.state]}</strong>{link.state === 'alive'
            ? ` until ${day(link.expires_at)}`
            : ''}, made {day(link.made_at)}{link.made_by ? ` by ${link.made_by}` : ''}
        </span>
        {#if link.state === 'alive'}
          <a
            class="figure break-all underline underline-offset-4"
            href={link.address}
            target="_blank"
            rel="noopener">{link.address}</a
          >
          <span class="flex gap-2">
            <button type="button" class="btn min-h-12 flex-1" onclick={() => copy(link)}
              >{copied === link.id ? 'Copied' : 'Copy'}</button
            >
            {#if mayShare}
              <button
                type="button"
                class="btn min-h-12 flex-1"
                onclick={() => after(revoke(link.id))}>Stop sharing</button
              >
            {/if}
          </span>
        {/if}
      </li>
    {/each}
  </ul>
{/if}
