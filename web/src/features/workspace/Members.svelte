<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import Faults from '../../ui/Faults.svelte'

  /** Who belongs to the workspace, in which role; an owner lets people in and out. */
  type Role = Schemas['MemberOut']['role']
  let { workspace, onchanged }: { workspace: Schemas['WorkspaceMembers']; onchanged: () => void } =
    $props()
  let [username, name, role] = $state<[string, string, Role]>(['', '', 'technician'])
  let faults = $state.raw<Fault[]>([])
  let problem = $state<Problem | undefined>()
  let made = $state.raw<Schemas['PasswordOut'] | undefined>()
  /** What was pressed once, and asks to be pressed again: nobody should be out by a slip of a wet thumb. */
  let sure = $state('')
  const STILL_SURE_MS = 6000
  const ROLES: [Role, string][] = [
    ['owner', 'Owner'],
    ['technician', 'Technician'],
    ['viewer', 'Viewer'],
  ]
  const word = (id: Role) => ROLES.find(([role]) => role === id)![1]

  function hear(refused: Problem | undefined) {
    ;[faults, problem] = parted(refused)
    if (!refused) onchanged()
  }
  async function add(event: SubmitEvent) {
    event.preventDefault()
    const params = { path: { workspace_id: workspace.id } }
    const body = { username, name, role }
    const got = await outcome(api.POST('/api/workspaces/{workspace_id}/members', { params, body }))
    hear(got.problem)
    made = got.data
    if (made) [username, name] = ['', '']
  }
  const at = (user: number) => ({ path: { workspace_id: workspace.id, user_id: user } })
  async function change(user: number, to: Role) {
    const call = api.PUT('/api/workspaces/{workspace_id}/members/{user_id}', {
      params: at(user),
      body: { role: to },
    })
    hear((await outcome(call)).problem)
    onchanged()
  }
  async function remove(user: number) {
    hear(
      (
        await outcome(
          api.DELETE('/api/workspaces/{workspace_id}/members/{user_id}', { params: at(user) }),
        )
      ).problem,
    )
  }
  async function endSecondFactor(user: number) {
    const path = '/api/workspaces/{workspace_id}/members/{user_id}/second-factor'
    hear((await outcome(api.DELETE(path, { params: at(user) }))).problem)
  }
  async function requireSecondFactor(event: Event & { currentTarget: HTMLInputElement }) {
    const { currentTarget: box } = event
    const params = { path: { workspace_id: workspace.id } }
    const body = { required: box.checked }
    const got = await outcome(
      api.PUT('/api/workspaces/{workspace_id}/second-factor', { params, body }),
    )
    if (got.problem) box.checked = workspace.second_factor
    hear(got.problem)
  }
  async function renew(user: number) {
    const got = await outcome(
      api.POST('/api/workspaces/{workspace_id}/members/{user_id}/password', { params: at(user) }),
    )
    hear(got.problem)
    made = got.data
  }
</script>

{#snippet twice(id: string, label: string, title: string, act: () => Promise<void>)}
  <button
    type="button"
    class="btn min-h-12 {sure === id ? 'btn-primary' : ''}"
    aria-label={sure === id ? `${label}: yes, do it` : label}
    onclick={() => {
      if (sure === id) return void act()
      sure = id
      setTimeout(() => (sure = sure === id ? '' : sure), STILL_SURE_MS)
    }}>{sure === id ? 'Yes, do it' : title}</button
  >
{/snippet}

<section aria-labelledby="members" class="grid gap-2">
  <h2 id="members" class="text-xl font-bold">Members</h2>
  {#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
  {#if made}
    <p role="status" class="rounded-box bg-[var(--zd-sand)] px-3 py-2">
      Password for {made.username}, shown this once:
      <span class="figure font-bold">{made.password}</span>
    </p>
  {/if}
  <ul class="grid gap-2" data-testid="members">
    {#each workspace.members as each (each.user)}
      <li
        class="flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-2"
      >
        <span class="min-w-40 flex-1">
          <span class="font-bold">{each.name}</span>{each.you ? ' (you)' : ''}
          <span class="block text-sm text-neutral"
            >{each.username}{each.second_factor ? ' · second factor' : ''}</span
          >
        </span>
        {#if workspace.may_change}
          <select
            class="select select-lg w-40"
            aria-label="Role of {each.name}"
            value={each.role}
            onchange={(event) => change(each.user, event.currentTarget.value as Role)}
          >
            {#each ROLES as [id] (id)}<option value={id}>{word(id)}</option>{/each}
          </select>
          {@render twice(
            `password ${each.user}`,
            `New password for ${each.name}`,
            'New password',
            () => renew(each.user),
          )}
          {#if each.second_factor && !each.you}
            {@render twice(
              `factor ${each.user}`,
              `End the second factor of ${each.name}`,
              'End second factor',
              () => endSecondFactor(each.user),
            )}
          {/if}
          {@render twice(`out ${each.user}`, `Take ${each.name} out`, 'Take out', () =>
            remove(each.user),
          )}
        {:else}
          <span>{word(each.role)}</span>
        {/if}
      </li>
    {/each}
  </ul>
  {#if workspace.may_change}
    <label class="flex min-h-12 items-center gap-2">
      <input
        type="checkbox"
        class="checkbox checkbox-lg"
        checked={workspace.second_factor}
        onchange={requireSecondFactor}
      />
      This workspace opens only with a second factor
    </label>
    <form class="grid gap-3 rounded-box border border-base-300 p-3 sm:grid-cols-3" onsubmit={add}>
      <label class="grid content-start gap-1 text-sm">
        Sign-in name
        <input
          class="input input-lg w-full"
          maxlength="60"
          autocomplete="off"
          bind:value={username}
        />
        <span class="wrap-anywhere text-neutral">ends with @{workspace.handle}</span>
        <Faults {faults} path="username" />
      </label>
      <label class="grid content-start gap-1 text-sm">
        Name
        <input class="input input-lg w-full" maxlength="60" autocomplete="off" bind:value={name} />
        <Faults {faults} path="name" />
      </label>
      <label class="grid content-start gap-1 text-sm">
        Role
        <select class="select select-lg w-full" bind:value={role}>
          {#each ROLES as [id, title] (id)}<option value={id}>{title}</option>{/each}
        </select>
      </label>
      <p class="text-sm text-neutral sm:col-span-3">
        An owner changes everything, members too; a technician visits and changes systems; a viewer
        looks only.
      </p>
      <button class="btn min-h-12 sm:col-span-3 sm:w-fit">Let somebody in</button>
    </form>
  {/if}
</section>
