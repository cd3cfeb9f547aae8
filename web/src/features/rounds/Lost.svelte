<script lang="ts">
  import TopBar from '../../ui/TopBar.svelte'
</script>

<svelte:head><title>Not found · Zero Dip</title></svelte:head>
<TopBar />
<main class="p-6">
  <h1 class="text-2xl font-bold">Nothing is at this address</h1>
  <p class="mt-2"><a class="link" href="/">Back to Rounds</a></p>
</main>
