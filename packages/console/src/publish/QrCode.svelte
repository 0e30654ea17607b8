<script lang="ts">
  const { text }: { text: string } = $props();
  const module = import('qrcode');
  const made = $derived(module.then(({ default: qrcode }) => qrcode.create(text, { errorCorrectionLevel: 'M' }).modules));
</script>

{#await made then { size, data }}
  <svg viewBox="-2 -2 {size + 4} {size + 4}" width="132" height="132" role="img" aria-label="QR code of {text}">
    <rect x="-2" y="-2" width={size + 4} height={size + 4} fill="#ffffff" />
    {#each data as dark, index (index)}
      {#if dark}<rect x={index % size} y={Math.floor(index / size)} width="1.02" height="1.02" fill="#000000" />{/if}
    {/each}
  </svg>
{/await}
